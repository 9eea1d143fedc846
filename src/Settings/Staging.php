<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Connection;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\EscsMoved;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Seen;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\Fate;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/**
 * The first half of the one road that settings change by: checked, then staged.
 *
 * Every change of it is a step with a number. A page knows the number of the last step that it showed; what it sends is refused
 * where a later step has changed the same from elsewhere.
 */
final readonly class Staging
{
    /** Steps that are kept: more than any open page is behind. */
    private const STEPS = 2000;

    public function __construct(private Connection $db, private Catalogue $catalogue, private Words $words, private Seen $seen)
    {
    }

    /** Number of the last step. */
    public function revision(Craft $craft): int
    {
        $last = $this->db->fetchOne('SELECT MAX(id) FROM staged_step WHERE craft_id = ?', [$craft->id]);

        return is_numeric($last) ? (int) $last : 0;
    }

    /**
     * Stages values; all or none.
     *
     * @param array<string, mixed> $values by setting name; a value equal to the craft's own takes the change back
     *
     * @throws SettingError          for the first that cannot be
     * @throws ConflictHttpException where another has staged the same since
     */
    public function stage(Craft $craft, array $values): void
    {
        $checked = [];
        foreach ($values as $name => $value) {
            $name = (string) $name; // what was sent without a name comes numbered
            if (!$craft->settings->has($name)) {
                throw SettingError::notOnCraft($name);
            }
            $checked[$name] = $this->catalogue->get($name, $craft->version())->check($value, $craft->version());
        }
        $this->alone(function () use ($craft, $checked): void {
            $staged = $this->of($craft);
            $this->refuseUnseen($craft, $this->seen->step(), $checked);
            $base = EscTable::underPadMap($craft->settings, $craft->settings->with($staged)->with($checked));
            foreach ($checked as $name => $value) {
                if (Setting::same($value, $base[$name] ?? $craft->settings[$name])) {
                    $this->remove($craft, $name);
                } elseif (!isset($staged[$name]) || !Setting::same($value, $staged[$name])) {
                    $this->put($craft, $name, $value);
                }
            }
        });
    }

    /**
     * @param list<string>|null $names all when null
     *
     * @throws ConflictHttpException where another has staged the same since
     */
    public function discard(Craft $craft, ?array $names = null): void
    {
        $this->alone(function () use ($craft, $names): void {
            $this->refuseUnseen($craft, $this->seen->step(), null === $names ? null : array_fill_keys($names, null));
            foreach ($names ?? $this->of($craft)->names() as $name) {
                $this->remove($craft, $name);
            }
        });
    }

    /**
     * Another firmware runs: what is staged passes the same migration as what is on the craft.
     *
     * @return list<Fate> of each
     */
    public function carry(Craft $craft, Version $from, Version $to): array
    {
        $staged = EscTable::without($this->of($craft));
        $fates = array_values(
            array_filter(
                Migration::between($this->catalogue, $staged, $from, $to)->fates,
                static fn (Fate $f): bool => null !== $f->oldName,
            ),
        );
        $this->alone(function () use ($craft, $fates): void {
            foreach ($fates as $fate) {
                $this->remove($craft, (string) $fate->oldName);
                $now = null === $fate->newName ? null : $craft->settings[$fate->newName] ?? null;
                if (null !== $fate->newName && null !== $fate->newValue && null !== $now && !Setting::same($now, $fate->newValue)) {
                    $this->put($craft, $fate->newName, $fate->newValue);
                }
            }
        });

        return $fates;
    }

    /** What is staged for an ESC goes with it to another place. */
    #[AsEventListener]
    public function onEscsMoved(EscsMoved $event): void
    {
        $craft = $event->craft;
        $staged = $this->of($craft);
        $at = EscTable::pads($this->preview($craft));
        $moved = [];
        foreach ($event->pads as $was => $pad) {
            if (isset($at[$was], $at[$pad])) {
                $moved[$at[$was]] = $at[$pad];
            }
        }
        $this->alone(function () use ($craft, $staged, $moved): void {
            foreach ([...array_keys($moved), ...$moved] as $place) {
                foreach (EscTable::prefixed($place, EscTable::at($place, $staged))->names() as $name) {
                    $this->remove($craft, $name);
                }
            }
            foreach ($moved as $was => $place) {
                foreach (EscTable::prefixed($place, EscTable::at($was, $staged)) as $name => $value) {
                    if (!isset($craft->settings[$name]) || !Setting::same($craft->settings[$name], $value)) {
                        $this->put($craft, $name, $value);
                    }
                }
            }
        });
    }

    /** What was written is no longer staged; what was staged otherwise meanwhile still is. */
    public function written(Craft $craft, SettingSet $written): void
    {
        $this->alone(function () use ($craft, $written): void {
            $staged = $this->of($craft);
            foreach ($written as $name => $value) {
                if (isset($staged[$name]) && Setting::same($staged[$name], $value)) {
                    $this->remove($craft, $name);
                }
            }
        });
    }

    /**
     * A Commit writes what was seen.
     *
     * @throws ConflictHttpException with what is staged otherwise than the tray showed
     */
    public function demandSeen(Craft $craft): void
    {
        $seen = $this->seen->step() ?? throw BadRequest::at('seen', 'A Commit says which state of the tray it was pressed in.');
        $this->refuseUnseen($craft, $seen, null);
    }

    /** What is staged. */
    public function of(Craft $craft): SettingSet
    {
        $values = [];
        $rows = $this->db->fetchAllKeyValue('SELECT name, value FROM staged_change WHERE craft_id = ? ORDER BY id', [$craft->id]);
        foreach ($rows as $name => $json) {
            $value = \is_string($json) ? json_decode($json) : null;
            if (\is_scalar($value)) {
                $values[(string) $name] = $value;
            }
        }

        return SettingSet::of($values);
    }

    /** The craft's settings as they would be after Commit. */
    public function preview(Craft $craft): SettingSet
    {
        $staged = $this->of($craft)->among($craft->settings);

        return EscTable::underPadMap($craft->settings, $craft->settings->with($staged))->with($staged);
    }

    /** What each setting is changed from: an ESC goes with its pad, wherever that is staged to drive. */
    public function base(Craft $craft): SettingSet
    {
        return EscTable::underPadMap($craft->settings, $craft->settings->with($this->of($craft)));
    }

    /**
     * @param array<string, mixed>|null $wanted value by name, null to take it back; all that is staged when null
     *
     * @throws ConflictHttpException
     */
    private function refuseUnseen(Craft $craft, ?int $seen, ?array $wanted): void
    {
        if (null === $seen) {
            return;
        }
        // What is typed twice in one tab, faster than its page is drawn, is no news to it; a Commit wants to have shown even that.
        $unseen = $this->db->fetchFirstColumn(
            'SELECT DISTINCT name FROM staged_step WHERE craft_id = ? AND id > ? AND (tab = ? OR tab <> ?) ORDER BY id',
            null === $wanted ? [$craft->id, $seen, '', ''] : [$craft->id, $seen, '', $this->seen->tab()],
        );
        $staged = $this->of($craft);
        $said = [];
        foreach ($unseen as $name) {
            $name = \is_string($name) ? $name : '';
            $now = $staged[$name] ?? null;
            $same = null !== $wanted && isset($wanted[$name], $now) && \is_scalar($wanted[$name]) && Setting::same($now, $wanted[$name]);
            if (!$same && (null === $wanted || \array_key_exists($name, $wanted))) {
                $label = $this->catalogue->has($name, $craft->version())
                    ? $this->words->label($this->catalogue->get($name, $craft->version()))
                    : $name;
                $said[] = $label.(null === $now ? ' is no longer staged' : ' is now staged as '.self::plain($now));
            }
        }
        if ([] !== $said) {
            $more = \count($said) > 4 ? ', and '.(\count($said) - 4).' more' : '';
            throw new ConflictHttpException(
                'Something else was staged since this page was drawn: '.implode(', ', \array_slice($said, 0, 4)).$more.
                    '. Nothing was done; look at it as it is now, and press again.',
            );
        }
    }

    private static function plain(float|int|bool|string $value): string
    {
        return \is_bool($value) ? ($value ? 'on' : 'off') : (string) $value;
    }

    private static function json(float|int|bool|string $value): string
    {
        return json_encode($value, \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR);
    }

    private function put(Craft $craft, string $name, float|int|bool|string $value): void
    {
        $this->db->executeStatement(
            'INSERT INTO staged_change (craft_id, name, value) VALUES (?, ?, ?)
                ON CONFLICT (craft_id, name) DO UPDATE SET value = excluded.value',
            [$craft->id, $name, self::json($value)],
        );
        $this->step($craft, $name, $value);
    }

    private function remove(Craft $craft, string $name): void
    {
        if (0 < $this->db->executeStatement('DELETE FROM staged_change WHERE craft_id = ? AND name = ?', [$craft->id, $name])) {
            $this->step($craft, $name, null);
        }
    }

    private function step(Craft $craft, string $name, float|int|bool|string|null $value): void
    {
        $this->db->executeStatement('INSERT INTO staged_step (craft_id, name, value, tab) VALUES (?, ?, ?, ?)', [
            $craft->id,
            $name,
            null === $value ? null : self::json($value),
            $this->seen->tab(),
        ]);
    }

    /**
     * Two pages may stage at once: one after the other. It begins with a write, so that what is read then is not read too early.
     *
     * @param \Closure(): void $act
     */
    private function alone(\Closure $act): void
    {
        $this->db->transactional(function () use ($act): void {
            $this->db->executeStatement(
                'DELETE FROM staged_step WHERE id <= (SELECT MAX(id) FROM staged_step) - ?',
                [self::STEPS],
            );
            $act();
        });
    }
}

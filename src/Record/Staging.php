<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;

/** The first half of the one road that settings change by: checked, then staged. */
final readonly class Staging
{
    public function __construct(private EntityManagerInterface $entities, private Catalogue $catalogue)
    {
    }

    /**
     * Stages values; all or none.
     *
     * @param array<string, mixed> $values by setting name; a value equal to the craft's own takes the change back
     *
     * @throws SettingError for the first that cannot be
     */
    public function stage(Craft $craft, array $values): void
    {
        $checked = [];
        foreach ($values as $name => $value) {
            if (!$craft->settings->has($name)) {
                throw SettingError::notOnCraft($name);
            }
            $checked[$name] = $this->catalogue->get($name, $craft->version())->check($value, $craft->version());
        }
        $staged = $this->entitiesOf($craft);
        $base = EscTable::underPadMap($craft->settings, $craft->settings->with($this->of($craft))->with($checked));
        foreach ($checked as $name => $value) {
            $old = $staged[$name] ?? null;
            if (Setting::same($value, $base[$name] ?? $craft->settings[$name])) {
                if (null !== $old) {
                    $this->entities->remove($old);
                }
            } elseif (null !== $old) {
                $old->value = $value;
            } else {
                $this->entities->persist(new StagedChange($craft, $name, $value));
            }
        }
        $this->entities->flush();
    }

    /** @param list<string>|null $names all when null */
    public function discard(Craft $craft, ?array $names = null): void
    {
        foreach ($this->entitiesOf($craft) as $name => $change) {
            if (null === $names || \in_array($name, $names, true)) {
                $this->entities->remove($change);
            }
        }
        $this->entities->flush();
    }

    /** What is staged. */
    public function of(Craft $craft): SettingSet
    {
        return SettingSet::of(array_map(static fn (StagedChange $c): float|int|bool|string => $c->value, $this->entitiesOf($craft)));
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

    /** @return array<string, StagedChange> */
    private function entitiesOf(Craft $craft): array
    {
        $changes = [];
        foreach ($this->entities->getRepository(StagedChange::class)->findBy(['craft' => $craft], ['id' => 'ASC']) as $change) {
            $changes[$change->name] = $change;
        }

        return $changes;
    }
}

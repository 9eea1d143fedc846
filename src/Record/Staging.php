<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
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
            if (!\array_key_exists($name, $craft->settings)) {
                throw SettingError::at($name, 'the craft has no such setting; link it first, or look whether its firmware knows it');
            }
            $checked[$name] = $this->catalogue->get($name, $craft->version())->check($value, $craft->version());
        }
        $staged = $this->entitiesOf($craft);
        $base = EscTable::underPadMap($craft->settings, array_merge($craft->settings, $this->of($craft), $checked));
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

    /** @return array<string, float|int|bool|string> what is staged, by name */
    public function of(Craft $craft): array
    {
        return array_map(static fn (StagedChange $c): float|int|bool|string => $c->value, $this->entitiesOf($craft));
    }

    /** @return array<string, float|int|bool|string> the craft's settings as they would be after Commit */
    public function preview(Craft $craft): array
    {
        $staged = array_intersect_key($this->of($craft), $craft->settings);

        return array_merge(EscTable::underPadMap($craft->settings, array_merge($craft->settings, $staged)), $staged);
    }

    /** @return array<string, float|int|bool|string> what each setting is changed from: an ESC goes with its pad, wherever that is staged to drive */
    public function base(Craft $craft): array
    {
        return EscTable::underPadMap($craft->settings, array_merge($craft->settings, $this->of($craft)));
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

<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Connection;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;

/** The first half of the one road that settings change by: checked, then staged. */
final readonly class Staging
{
    public function __construct(private Connection $db, private Catalogue $catalogue)
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
            $name = (string) $name; // what was sent without a name comes numbered
            if (!$craft->settings->has($name)) {
                throw SettingError::notOnCraft($name);
            }
            $checked[$name] = $this->catalogue->get($name, $craft->version())->check($value, $craft->version());
        }
        $base = EscTable::underPadMap($craft->settings, $craft->settings->with($this->of($craft))->with($checked));
        // Two pages may stage at once: each value is put down in one statement, and the later one stands.
        $this->db->transactional(function () use ($craft, $checked, $base): void {
            foreach ($checked as $name => $value) {
                if (Setting::same($value, $base[$name] ?? $craft->settings[$name])) {
                    $this->db->executeStatement('DELETE FROM staged_change WHERE craft_id = ? AND name = ?', [$craft->id, $name]);
                } else {
                    $this->db->executeStatement(
                        'INSERT INTO staged_change (craft_id, name, value) VALUES (?, ?, ?)
                            ON CONFLICT (craft_id, name) DO UPDATE SET value = excluded.value',
                        [$craft->id, $name, json_encode($value, \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR)],
                    );
                }
            }
        });
    }

    /** @param list<string>|null $names all when null */
    public function discard(Craft $craft, ?array $names = null): void
    {
        if (null === $names) {
            $this->db->executeStatement('DELETE FROM staged_change WHERE craft_id = ?', [$craft->id]);
        }
        foreach ($names ?? [] as $name) {
            $this->db->executeStatement('DELETE FROM staged_change WHERE craft_id = ? AND name = ?', [$craft->id, $name]);
        }
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
}

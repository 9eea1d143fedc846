<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;

/** The settings that a sheet offers as fields, of those that the craft's firmware has. */
final readonly class Fields
{
    public function __construct(private Catalogue $catalogue)
    {
    }

    /**
     * @param list<string> $names
     *
     * @return list<Setting>
     */
    public function of(Craft $craft, array $names): array
    {
        $fields = [];
        foreach ($names as $name) {
            if ($craft->settings->has($name)) {
                $fields[] = $this->catalogue->get($name, $craft->version());
            }
        }

        return $fields;
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Ortholex\Core\Craft\SettingSet;

/** Settings as they are kept: a JSON map, read as a set. */
final class SettingSetType extends WholeJsonType
{
    public const NAME = 'settings';

    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): ?SettingSet
    {
        $data = parent::convertToPHPValue($value, $platform);
        if (null === $data) {
            return null;
        }
        $values = [];
        if (!\is_array($data)) {
            throw ValueNotConvertible::new($value, self::NAME, 'it is no map');
        }
        foreach ($data as $name => $one) {
            if (\is_scalar($one)) {
                $values[(string) $name] = $one;
            }
        }

        return SettingSet::of($values);
    }

    public function convertToDatabaseValue(mixed $value, AbstractPlatform $platform): ?string
    {
        return parent::convertToDatabaseValue($value instanceof SettingSet ? $value->toArray() : $value, $platform);
    }
}

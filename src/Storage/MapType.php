<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Doctrine\DBAL\Types\JsonType;

/** JSON as the book keeps it: always a list or a map. Anything else is told as what cannot be read, not passed over. */
class MapType extends JsonType
{
    /** @return array<mixed>|null */
    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): mixed
    {
        if (null === $value) {
            return null;
        }
        $data = parent::convertToPHPValue($value, $platform);

        return \is_array($data) ? $data : throw ValueNotConvertible::new($value, 'json', 'it is no list and no map');
    }
}

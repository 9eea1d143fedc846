<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Platforms\AbstractPlatform;
use Doctrine\DBAL\Types\Exception\ValueNotConvertible;
use Doctrine\DBAL\Types\JsonType;

/** JSON as the book keeps it: never nothing at all. That is told as what cannot be read, not passed over. */
class WholeJsonType extends JsonType
{
    public function convertToPHPValue(mixed $value, AbstractPlatform $platform): mixed
    {
        if ('' === $value) {
            throw ValueNotConvertible::new($value, 'json', 'it is empty');
        }

        return parent::convertToPHPValue($value, $platform);
    }
}

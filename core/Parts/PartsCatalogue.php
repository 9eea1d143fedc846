<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts;

use Ortholex\Core\Airframe\Layout;

/** The parts that a craft can be put together from, as parts.json declares them. */
final readonly class PartsCatalogue
{
    /**
     * @param array<string, Frame>     $frames by id, as all of them
     * @param array<string, Motor>     $motors
     * @param array<string, Prop>      $props
     * @param array<string, EscPart>   $escs
     * @param array<string, PackPart>  $packs
     * @param array<string, BoardPart> $boards
     * @param array<string, float>     $extrasG what else can be soldered to a board, and weighs, g
     */
    private function __construct(
        public array $frames,
        public array $motors,
        public array $props,
        public array $escs,
        public array $packs,
        public array $boards,
        public array $extrasG,
    ) {
    }

    public static function shipped(): self
    {
        /** @var self|null $shipped */
        static $shipped = null;

        return $shipped ??= self::read((string) file_get_contents(__DIR__.'/parts.json'));
    }

    /** @throws \JsonException|\TypeError|\ValueError when it declares no such parts */
    public static function read(string $json): self
    {
        /** @var array<string, list<array<string, mixed>>> $all */
        $all = json_decode($json, true, 16, \JSON_THROW_ON_ERROR);
        $frames = array_map(static fn (array $row): array => ['layout' => Layout::from(self::text($row, 'layout'))] + $row, $all['frames']);
        $extras = [];
        foreach ($all['extras'] as $row) {
            $mass = $row['mass_g'] ?? null;
            $extras[self::text($row, 'id')] = is_numeric($mass) ? (float) $mass : throw new \ValueError('mass_g');
        }

        return new self(
            self::of(Frame::class, $frames),
            self::of(Motor::class, $all['motors']),
            self::of(Prop::class, $all['props']),
            self::of(EscPart::class, $all['escs']),
            self::of(PackPart::class, $all['packs']),
            self::of(BoardPart::class, $all['boards']),
            $extras,
        );
    }

    /** @param array<string, mixed> $row */
    private static function text(array $row, string $name): string
    {
        return \is_string($row[$name] ?? null) ? $row[$name] : throw new \ValueError($name);
    }

    /**
     * @template T of Frame|Motor|Prop|EscPart|PackPart|BoardPart
     *
     * @param class-string<T>                    $class
     * @param list<array<string, mixed>> $rows names of its constructor, in small letters with bars between
     *
     * @return array<string, T>
     */
    private static function of(string $class, array $rows): array
    {
        $parts = [];
        foreach ($rows as $row) {
            $named = [];
            foreach ($row as $name => $value) {
                $named[lcfirst(str_replace('_', '', ucwords($name, '_')))] = $value;
            }
            $part = (new \ReflectionClass($class))->newInstanceArgs($named);
            $parts[$part->id] = $part;
        }

        return $parts;
    }
}

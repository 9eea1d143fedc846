<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Esc\FirstClocks;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Airframe\MotorPlace;

/** What lies on a bench for one craft: its board and all that it physically is, kept as a file so that any craft can have one. */
final readonly class Belongings
{
    private const FILE = 'made.json';

    public function __construct(public BoardModel $model, public CraftPhysics $physics)
    {
    }

    /** Null where the folder of this craft holds none. */
    public static function in(string $folder): ?self
    {
        $text = @file_get_contents("$folder/".self::FILE);
        if (false === $text) {
            return null;
        }
        try {
            $made = json_decode($text, true, 32, \JSON_THROW_ON_ERROR);
            $part = static fn (string $name): array => \is_array($made) && \is_array($made[$name] ?? null) ? $made[$name] : [];
            $motors = array_map(static fn (mixed $m): MotorPlace => self::of(MotorPlace::class, $m), $part('motors'));
            $layout = \is_array($made) && \is_string($made['layout'] ?? null) ? $made['layout'] : '';

            return new self(
                self::of(BoardModel::class, $part('model')),
                self::of(CraftPhysics::class, [
                    'frame' => Airframe::ofMotors(Layout::from($layout), ...array_values($motors)),
                    'escs' => array_map(static fn (mixed $e): EscModel => self::of(EscModel::class, self::esc($e)), $part('escs')),
                ] + $part('physics')),
            );
        } catch (\Throwable $e) {
            throw new \RuntimeException("The bench cannot read what lies in $folder: {$e->getMessage()}", previous: $e);
        }
    }

    /** The same with another board of the make, and other ESCs. */
    public function withSerial(string $serial): self
    {
        $with = static fn (object $of, array $other): array => $other + get_object_vars($of);
        $escs = [];
        foreach ($this->physics->escs as $pad => $esc) {
            $escs[$pad] = (new \ReflectionClass(EscModel::class))->newInstanceArgs($with($esc, ['serial' => "$serial-$pad"]));
        }

        return new self(
            (new \ReflectionClass(BoardModel::class))->newInstanceArgs($with($this->model, ['serial' => strtoupper($serial)])),
            (new \ReflectionClass(CraftPhysics::class))->newInstanceArgs($with($this->physics, ['escs' => $escs])),
        );
    }

    public function putInto(string $folder): void
    {
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        $frame = $this->physics->frame;
        $made = [
            'model' => get_object_vars($this->model),
            'layout' => $frame->layout->value,
            'motors' => array_map(get_object_vars(...), $frame->motors),
            'escs' => array_map(get_object_vars(...), $this->physics->escs),
            'physics' => array_diff_key(get_object_vars($this->physics), ['frame' => 1, 'escs' => 1]),
        ];
        $flags = \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR;
        (new DurableFile("$folder/".self::FILE))->write(json_encode($made, $flags)."\n");
    }

    private static function esc(mixed $made): mixed
    {
        return \is_array($made) && \is_int($made['clockMhz'] ?? null)
            ? ['clockMhz' => FirstClocks::mhz($made['clockMhz'])] + $made
            : $made;
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T with each argument of its constructor by name; what is missing or of another type is an error
     */
    private static function of(string $class, mixed $arguments): object
    {
        return (new \ReflectionClass($class))->newInstanceArgs(\is_array($arguments) ? $arguments : []);
    }
}

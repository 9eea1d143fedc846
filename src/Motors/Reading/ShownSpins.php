<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Motors\ShownSpin;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\TurningDirection;
use Ortholex\Core\Settings\EscTable;

/**
 * What the builder saw when outputs were spun. It holds for the pad map and the directions that were on the craft then: staged, it
 * stays; committed, it is of another craft, and a second round proves that.
 */
final readonly class ShownSpins
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return array<int, ShownSpin> by pad; what was seen under another map or other directions is left out */
    public function of(Craft $craft): array
    {
        $now = self::conditions($craft->settings);
        $shown = [];
        foreach ($this->entities->getRepository(ShownSpin::class)->findBy(['craft' => $craft], ['pad' => 'ASC']) as $spin) {
            // What an ESC holds may have been read only since.
            if (array_intersect_key($spin->under, $now) == array_intersect_key($now, $spin->under)) {
                $shown[$spin->pad] = $spin;
            }
        }

        return $shown;
    }

    /** @param int $direction +1 clockwise from above, −1 counter-clockwise, 0 while it was not said */
    public function show(Craft $craft, int $pad, string $place, int $direction): void
    {
        $spin =
            $this->entities->getRepository(ShownSpin::class)->findOneBy(['craft' => $craft, 'pad' => $pad]) ?? new ShownSpin($craft, $pad);
        $spin->place = $place;
        $spin->direction = $direction;
        $spin->under = self::conditions($craft->settings);
        $this->entities->persist($spin);
        $this->entities->flush();
    }

    public function clear(Craft $craft): void
    {
        foreach ($this->entities->getRepository(ShownSpin::class)->findBy(['craft' => $craft]) as $spin) {
            $this->entities->remove($spin);
        }
        $this->entities->flush();
    }

    /**
     * The directions to stage: each motor that was seen turning the wrong way is turned about from what its ESC holds.
     *
     * @param SettingSet $preview as staged, pad map and all
     *
     * @return array<string, string> settings by name; without those that are staged already
     */
    public static function turned(Craft $craft, SettingSet $preview, SpinCheck $check): array
    {
        $pads = $craft->settings->with(
            $preview->where(static fn (string $name): bool => str_starts_with($name, 'pad.'))->among($craft->settings),
        );
        foreach ($check->drives as $pad => $place) {
            $pads = $pads->with(["pad.$pad.drives" => $place]);
        }
        $held = EscTable::underPadMap($craft->settings, $pads);
        $turned = [];
        foreach ($check->reverse as $place) {
            $name = "esc.$place.direction";
            $to = EscTable::isSwapped(['direction' => $held[$name] ?? '']) ? TurningDirection::AsWired : TurningDirection::Swapped;
            if (($preview[$name] ?? null) !== $to->value) {
                $turned[$name] = $to->value;
            }
        }

        return $turned;
    }

    /** @return array<string, string> */
    private static function conditions(SettingSet $settings): array
    {
        $on = [];
        foreach ($settings as $name => $value) {
            if (\is_string($value) && 1 === preg_match('/^pad\.\d+\.drives$|^esc\.\w+\.direction$/', $name)) {
                $on[$name] = $value;
            }
        }

        return $on;
    }
}

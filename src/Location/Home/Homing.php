<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\AirLaw;
use Ortholex\Core\Homing\HoverAmperes;
use Ortholex\Core\Homing\ReturnForecast;
use Ortholex\Core\Homing\ReturnPlan;
use Ortholex\Core\Pack\PackCard;
use Symfony\Component\HttpFoundation\Request;

/** What a return takes, reckoned: from the plan, the craft's own hover current, and the pack in use. */
final readonly class Homing
{
    /** Share of a pack that is there above flight end. */
    private const USABLE = 0.8;

    private const USUAL_AH = 1.5;

    public function __construct(private HoverCurrent $hover)
    {
    }

    /** @return array{distance: float, height: float, wind: float, from: float, used: float} */
    public function asked(Request $request, ?ReturnPath $path): array
    {
        $told = $path->told ?? [];
        $of = static function (string $name, float $else, float $most) use ($request, $told): float {
            $given = $request->query->getString($name);
            $was = $told[$name] ?? $else;

            return max(0.0, min($most, is_numeric($given) ? (float) $given : (is_numeric($was) ? (float) $was : $else)));
        };

        return [
            'distance' => $of('distance', 100.0, 2000.0),
            'height' => max(2.0, $of('height', 20.0, 120.0)),
            'wind' => $of('wind', 4.0, 15.0),
            'from' => $of('from', 180.0, 360.0),
            'used' => $of('used', 30.0, 95.0),
        ];
    }

    /** @param array{distance: float, height: float, wind: float, from: float, used: float} $asked */
    public function drawing(Craft $craft, SettingSet $set, array $asked, ?ReturnPath $path): ReturnDrawing
    {
        $plan = ReturnPlan::in($set);
        $air = $this->air($craft, $set);
        $left = $this->ah($craft) * max(0.0, self::USABLE - $asked['used'] / 100);

        return new ReturnDrawing(
            $plan,
            $asked['distance'],
            $asked['height'],
            $asked['wind'],
            $asked['from'],
            null === $air ? [] : ReturnDrawing::around(
                $asked['from'],
                static fn (float $beside): ?float => ReturnForecast::noReturnM(
                    $plan,
                    $air,
                    $left,
                    $asked['height'],
                    $asked['wind'],
                    $beside,
                ),
            ),
            $path,
        );
    }

    /** @param array{distance: float, height: float, wind: float, from: float, used: float} $asked */
    public function forecast(Craft $craft, SettingSet $set, array $asked): ?ReturnForecast
    {
        $air = $this->air($craft, $set);

        return null === $air ? null : ReturnForecast::of(
            ReturnPlan::in($set),
            $air,
            $asked['distance'],
            $asked['height'],
            $asked['wind'],
            $asked['from'] - 180,
        );
    }

    /** @return array{HoverAmperes, string}|null */
    public function hover(Craft $craft): ?array
    {
        return $this->hover->of($craft);
    }

    /** What the pack in use holds when new. */
    public function ah(Craft $craft): float
    {
        $cards = array_map(PackCard::fromArray(...), array_values($craft->packs));
        foreach ($cards as $card) {
            if ($card->inUse) {
                return $card->ah;
            }
        }

        return [] === $cards ? self::USUAL_AH : $cards[0]->ah;
    }

    private function air(Craft $craft, SettingSet $set): ?AirLaw
    {
        $hover = $this->hover->of($craft);

        return null === $hover ? null : AirLaw::of($set->number('return.tilted_45_ms', 17), max(0.1, $hover[0]->amperes));
    }
}

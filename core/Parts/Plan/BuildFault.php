<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** A mistake that is honestly made when a craft is put together, and found by Build and Command. */
enum BuildFault: string
{
    case BoardTurned = 'board_turned';
    case BoardCrooked = 'board_crooked';
    case OutputsMixed = 'outputs_mixed';
    case DirectionsWrong = 'directions_wrong';
    case OddEsc = 'odd_esc';
    case MagnetsMiscounted = 'magnets_miscounted';
    case PropUnbalanced = 'prop_unbalanced';
    case ArmLoose = 'arm_loose';
    case ReceiverUnset = 'receiver_unset';
    case ChannelOrder = 'channel_order';
    case SpansShort = 'spans_short';
    case ChannelReversed = 'channel_reversed';
    case VoltageWrong = 'voltage_wrong';
    case CurrentWrong = 'current_wrong';

    /** The key of its words. */
    public function called(): string
    {
        return "build_fault.$this->value";
    }

    /** @return list<self> so many different ones, the same for a seed */
    public static function draw(int $seed, int $number): array
    {
        $all = self::cases();
        $dice = new Randomizer(new Xoshiro256StarStar($seed));
        $number = max(0, min(\count($all), $number));
        $drawn = 0 === $number ? [] : array_map(static fn (int|string $k): self => $all[$k], $dice->pickArrayKeys($all, $number));

        return $drawn;
    }
}

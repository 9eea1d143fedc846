<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Arming\OwnBar;
use Ortholex\Core\Proof\Proved;

/** One open condition in words, with the step that mends it: a place to go to, or something to do with the hands. */
final readonly class OpenView
{
    /**
     * @param string $mend  what to do with the hands; '' where a sheet mends it
     * @param string $sheet number of the sheet that mends it; '' for none
     * @param string $label of the way there
     */
    private function __construct(
        public string $text,
        public bool $ours,
        public bool $forbids,
        public string $mend,
        public string $sheet,
        public string $label,
        public ?Proved $said,
    ) {
    }

    public static function of(Open $open, Words $words): self
    {
        if (null !== $open->bar) {
            [$mend, $sheet, $label] = self::ofBar($open->bar);

            return new self(ucfirst($words->of($open->bar)), false, $open->forbids, $mend, $sheet, $label, null);
        }
        $proof = $open->proof;
        [$mend, $sheet, $label] = match (true) {
            true === $open->own?->is(OwnBar::Waits) => ['Open the tray: Commit', '', ''],
            null !== $proof && $proof->isSaid() => ['Look, and say so', '', ''],
            null !== $proof => self::ofProof($proof),
            true === $open->own?->is(OwnBar::NoSnapshot) => ['', '72', 'Take a snapshot'],
            default => ['Open the tray: Commit, or discard', '', ''],
        };

        return new self(
            null === $open->own ? '' : $words->capital($open->own),
            true,
            false,
            $mend,
            $sheet,
            $label,
            null !== $proof && $proof->isSaid() ? $proof : null,
        );
    }

    /** @return array{string, string, string} */
    private static function ofBar(Bar $bar): array
    {
        return match ($bar) {
            Bar::NoFrames => ['', '21', 'Hear the receiver'],
            Bar::Failsafe => ['Switch the transmitter on', '', ''],
            Bar::ThrottleHigh => ['Pull the throttle stick down', '', ''],
            Bar::OnSincePowerUp => ['Flick arm off once', '', ''],
            Bar::Tilted => ['Lay it level', '', ''],
            Bar::GyroMoves => ['Let it rest', '', ''],
            Bar::PackLow => ['Connect a charged pack', '33', 'See the pack'],
            Bar::NothingArms => ['', '23', 'Map a lever that arms'],
            Bar::LevelUnknown => ['', '14', 'Calibrate level'],
            Bar::LoopOverload => ['', '15', 'Choose a slower loop'],
            Bar::NoFix => ['Go outdoors, and wait for the fix', '', ''],
            Bar::RestartDue => ['Pull pack and cable, and plug them again', '', ''],
            Bar::Cable => ['Arm it here, on the right, props off', '', ''],
        };
    }

    /** @return array{string, string, string} */
    private static function ofProof(Proved $what): array
    {
        return match ($what) {
            Proved::Mounting => ['', '14', 'Show two poses'],
            Proved::Level => ['', '14', 'Calibrate level'],
            Proved::SpinCheck, Proved::Directions => ['', '15', 'Show the motors'],
            Proved::Spans => ['', '21', 'Show the sticks'],
            Proved::Rehearsal => ['', '32', 'Rehearse it'],
            Proved::Voltage => ['', '33', 'Hold a meter to it'],
            Proved::Props, Proved::Position => ['', '', ''],
        };
    }
}

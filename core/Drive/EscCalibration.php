<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/**
 * Teaching analogue ESCs their end points: a sequence, with an interlock at each step.
 *
 * Digital signals carry numbers, not lengths: there is nothing to teach, and it says so.
 */
final readonly class EscCalibration
{
    public const STEPS = ['props', 'pack_off', 'full', 'pack_on', 'zero', 'end'];

    /**
     * @param self::STEPS[number]|'done'|'not_needed' $step     the one to do now
     * @param list<string>                            $warnings
     */
    private function __construct(public string $step, public string $words, public array $warnings)
    {
    }

    /**
     * @param string       $protocol motor signal as the board has it
     * @param string       $held     what the outputs are held at: '', full or zero
     * @param list<string> $tones    heard since the pack came on
     */
    public static function at(string $protocol, bool $propsDeclaredOff, bool $pack, string $held, array $tones, int $motors): self
    {
        if (str_starts_with($protocol, 'dshot')) {
            return new self('not_needed', 'Not needed: a DShot signal carries numbers, so there are no end points to teach.', []);
        }
        $rising = \count(array_filter($tones, static fn (string $t): bool => 'two rising tones' === $t));
        $falling = \count(array_filter($tones, static fn (string $t): bool => 'three falling tones' === $t));
        if ('' === $held) {
            return match (true) {
                $pack => new self('pack_off', 'Take the pack off: full output with the pack on would spin every motor.', []),
                default => new self(
                    'full',
                    'Hold all outputs at full. Nothing turns, as the motors have no power yet.',
                    $propsDeclaredOff ? [] : ['Take the props off before the pack comes on.'],
                ),
            };
        }
        if ('full' === $held) {
            if (!$pack) {
                return new self(
                    'pack_on',
                    'Now connect the pack, props off, and listen: each ESC plays two rising tones when it has the upper end.',
                    [],
                );
            }

            return new self(
                'zero',
                "$rising of $motors played two rising tones.",
                $rising < $motors
                    ? [
                        'Not all took the upper end. End it, take the pack off, and start again; look at the wire of the one that stayed silent.',
                    ]
                    : [],
            );
        }

        return $falling >= $motors
            ? new self('end', 'All have both ends. End the calibration; the outputs are free again.', [])
            : new self('end', "$falling of $motors played three falling tones.", ['Not all took the lower end. End it and start again.']);
    }
}

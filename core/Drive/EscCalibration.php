<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Fact\Fact;

/**
 * Teaching analogue ESCs their end points: a sequence, with an interlock at each step.
 *
 * Digital signals carry numbers, not lengths: there is nothing to teach, and it says so.
 */
final readonly class EscCalibration
{
    /**
     * @param CalibrationStep $step     the one to do now
     * @param Fact            $says     of CalibrationCode
     * @param list<Fact>      $warnings of CalibrationCode
     */
    private function __construct(public CalibrationStep $step, public Fact $says, public array $warnings)
    {
    }

    /**
     * @param TeachStep|null $held  what the outputs are held at
     * @param list<Tone>     $tones heard since the pack came on
     */
    public static function at(MotorSignal $signal, bool $propsDeclaredOff, bool $pack, ?TeachStep $held, array $tones, int $motors): self
    {
        if ($signal->isDigital()) {
            return self::to(CalibrationStep::NotNeeded, Fact::of(CalibrationCode::NotNeeded));
        }

        return match ($held) {
            null => self::begin($propsDeclaredOff, $pack),
            TeachStep::Full => self::heldAtFull($pack, self::count($tones, Tone::TwoRising), $motors),
            TeachStep::Zero, TeachStep::End => self::heldAtZero(self::count($tones, Tone::ThreeFalling), $motors),
        };
    }

    /**
     * Whether all ESCs took both ends.
     *
     * @param list<Tone> $tones
     */
    public static function isDone(array $tones, int $motors): bool
    {
        return self::count($tones, Tone::ThreeFalling) >= $motors;
    }

    private static function begin(bool $propsDeclaredOff, bool $pack): self
    {
        return $pack
            ? self::to(CalibrationStep::PackOff, Fact::of(CalibrationCode::TakePackOff))
            : self::to(
                CalibrationStep::Full,
                Fact::of(CalibrationCode::HoldAtFull),
                ...($propsDeclaredOff ? [] : [CalibrationCode::TakePropsOff]),
            );
    }

    private static function heldAtFull(bool $pack, int $rising, int $motors): self
    {
        return $pack
            ? self::to(
                CalibrationStep::Zero,
                Fact::of(CalibrationCode::TookUpperEnd, escs: $rising, of: $motors),
                ...($rising < $motors ? [CalibrationCode::UpperEndMissing] : []),
            )
            : self::to(CalibrationStep::PackOn, Fact::of(CalibrationCode::ConnectPack));
    }

    private static function heldAtZero(int $falling, int $motors): self
    {
        return $falling >= $motors
            ? self::to(CalibrationStep::End, Fact::of(CalibrationCode::AllDone))
            : self::to(
                CalibrationStep::End,
                Fact::of(CalibrationCode::TookLowerEnd, escs: $falling, of: $motors),
                CalibrationCode::LowerEndMissing,
            );
    }

    private static function to(CalibrationStep $step, Fact $says, CalibrationCode ...$warnings): self
    {
        return new self($step, $says, array_map(static fn (CalibrationCode $c): Fact => Fact::of($c), array_values($warnings)));
    }

    /** @param list<Tone> $tones */
    private static function count(array $tones, Tone $which): int
    {
        return \count(array_filter($tones, static fn (Tone $t): bool => $which === $t));
    }
}

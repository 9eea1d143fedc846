<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\Core\Camera\ServoLaw;

/** The camera from the side: how far it reaches, where it is told to point, and where it is seen to. */
final readonly class CameraDrawing
{
    /** Where it turns, and how far out its lens and the arc of its reach are. */
    private const X = 520.0;

    private const Y = 220.0;
    private const LENS = 92.0;
    private const ARC = 150.0;

    public function __construct(public ServoLaw $law, public float $askedDeg, public ?float $seenDeg)
    {
    }

    /** @return array<string, float> as the script takes it */
    public function scale(): array
    {
        return [
            'x' => self::X,
            'y' => self::Y,
            'arc' => self::ARC,
            'middle' => $this->law->middleUs,
            'per' => ($this->law->reversed ? -1 : 1) * $this->law->usPerDeg,
        ];
    }

    /** @return array{x: float, y: float} a point at so many degrees, so far out */
    public function at(float $deg, float $far = self::ARC): array
    {
        return ['x' => round(self::X + $far * cos(deg2rad($deg)), 1), 'y' => round(self::Y - $far * sin(deg2rad($deg)), 1)];
    }

    /** Its reach as a piece of a ring. */
    public function reach(): string
    {
        [$low, $high] = $this->law->reach();
        [$low, $high] = [max(-120.0, $low), min(120.0, $high)];
        [$a, $b] = [$this->at($low), $this->at($high)];
        [$c, $d] = [$this->at($high, self::LENS + 14), $this->at($low, self::LENS + 14)];
        $large = $high - $low > 180 ? 1 : 0;

        return \sprintf(
            'M%s %sA%s %s 0 %d 0 %s %sL%s %sA%s %s 0 %d 1 %s %sz',
            $a['x'],
            $a['y'],
            self::ARC,
            self::ARC,
            $large,
            $b['x'],
            $b['y'],
            $c['x'],
            $c['y'],
            self::LENS + 14,
            self::LENS + 14,
            $large,
            $d['x'],
            $d['y'],
        );
    }

    /** @return list<array{deg: float, says: string, x: float, y: float}> ends of the reach, and level */
    public function marks(): array
    {
        [$low, $high] = $this->law->reach();
        $marks = [];
        foreach ([$low, $high] as $deg) {
            $says = \sprintf('%.0f° · %.0f µs', $deg, $this->law->us($deg));
            $marks[] = ['deg' => $deg, 'says' => $says] + $this->at(max(-120.0, min(120.0, $deg)), self::ARC + 18);
        }

        return $marks;
    }

    public function askedUs(): float
    {
        return $this->law->us($this->askedDeg);
    }
}

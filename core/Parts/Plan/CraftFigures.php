<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Prop;

/** What follows from the parts of a craft: weight, inertia, thrust, how quickly its motors answer, how long it hovers. */
final readonly class CraftFigures
{
    private const G = 9.81;

    /** A cell under load. */
    private const RATED_CELL_V = 3.9;

    private const FULL_CELL_V = 4.2;

    /** Share of a frame's weight that is in its arms. */
    private const IN_ARMS = 0.55;

    /** g/cm³ of a pack, and how long, wide and high it is for its volume. */
    private const PACK_DENSITY = 2.1;

    private const PACK_SHAPE = [2.2, 1.0, 0.9];

    /** Screws, wires, straps: of the weight of all parts. */
    private const SMALL_PARTS = 0.05;

    /** What the electronics take, A at 5 V from the pack. */
    private const ELECTRONICS_W = 6.0;

    /** Of a pack's charge that is flown out. */
    private const FLOWN = 0.8;

    /** Area that it shows the air when it falls flat: so much of its diagonal squared, and its body, m². */
    private const FLAT = 0.28;

    private const BODY_M2 = 0.015;

    /** How quickly it goes level at 45° over how fast it falls. */
    private const EDGEWISE = 0.85;

    /**
     * @param array{float, float, float} $inertia kg·m² about roll, pitch, yaw
     * @param float                      $thrustN of one motor at full
     * @param float                      $lagS    of a motor, around hover
     * @param float                      $hover   output in hover, 0 to 1; over 1 it stays on the ground
     * @param float                      $fullA   of all motors at full
     * @param float                      $hoverMin minutes with the pack down to a fifth
     * @param float                      $gapMm   between the circles of the two nearest props; negative: they meet
     * @param list<Fact>                 $minded  what will not do, and what is to be minded
     */
    private function __construct(
        public float $massKg,
        public array $inertia,
        public float $thrustN,
        public float $maxRpm,
        public float $lagS,
        public float $hover,
        public float $fullA,
        public float $hoverMin,
        public float $gapMm,
        public float $terminalMs,
        public float $tilted45Ms,
        public array $minded,
    ) {
    }

    public static function of(CraftPlan $plan): self
    {
        $n = $plan->motors();
        $atArm = $plan->motor->massG + $plan->prop->massG + $plan->esc->massG;
        $parts = $plan->frame->massG + $n * $atArm + $plan->pack->massG + $plan->board->massG;
        foreach ($plan->extras as $extra) {
            $parts += PartsCatalogue::shipped()->extrasG[$extra] ?? 0.0;
        }
        $mass = ($plan->weighsG ?? $parts * (1 + self::SMALL_PARTS)) / 1000;
        $full = Propulsion::at($plan->motor, $plan->prop, $plan->esc->ohm, self::RATED_CELL_V * $plan->pack->cells);
        $hover = sqrt(($mass * self::G) / ($n * $full->thrustN));
        $turns = ($full->rpm / 60) * min(1.0, $hover);
        $watts = 2 * \M_PI * $turns * $plan->prop->torqueNm($turns);
        // What the motor makes of electric power, around there: its copper and its idle current.
        $amps = $plan->prop->torqueNm($turns) / $plan->motor->torquePerA();
        $watts += $amps ** 2 * ($plan->motor->ohm + $plan->esc->ohm);
        $watts += $plan->motor->idleA * $turns * 2 * \M_PI * $plan->motor->torquePerA();
        $volts = 3.75 * $plan->pack->cells;
        $fall = sqrt((2 * $mass * self::G) / (Prop::AIR_KG_M3 * (self::FLAT * ($plan->frame->diagonalMm / 1000) ** 2 + self::BODY_M2)));
        $gap = self::gap($plan);

        return new self(
            $mass,
            self::inertiaOf($plan, $atArm / 1000, $mass),
            $full->thrustN,
            $full->rpm,
            Propulsion::lagS($plan->motor, $plan->prop, $plan->esc->ohm, $turns),
            $hover,
            $n * $full->amps,
            (60 * self::FLOWN * $plan->pack->ah * $volts) / ($n * $watts + self::ELECTRONICS_W),
            $gap,
            $fall,
            self::EDGEWISE * $fall,
            PlanCheck::of($plan, $full, $hover, $gap, self::FULL_CELL_V * $plan->pack->cells),
        );
    }

    /** Whether it can be put together and lifts itself. */
    public function works(): bool
    {
        foreach ($this->minded as $fact) {
            if ($fact->code instanceof PlanCode && $fact->code->refuses()) {
                return false;
            }
        }

        return true;
    }

    public function thrustToWeight(int $motors): float
    {
        return ($motors * $this->thrustN) / ($this->massKg * self::G);
    }

    private static function gap(CraftPlan $plan): float
    {
        $least = \INF;
        $motors = $plan->frame->airframe()->motors;
        foreach ($motors as $i => $a) {
            foreach (\array_slice($motors, $i + 1) as $b) {
                $least = min($least, 1000 * hypot($a->x - $b->x, $a->y - $b->y));
            }
        }

        return $least - $plan->prop->diameterMm;
    }

    /** @return array{float, float, float} motors as points, arms as rods, the rest as a box of a pack's shape in the middle */
    private static function inertiaOf(CraftPlan $plan, float $atArmKg, float $massKg): array
    {
        $motors = $plan->frame->airframe()->motors;
        $arm = (self::IN_ARMS * $plan->frame->massG) / 1000 / \count($motors);
        $about = [0.0, 0.0, 0.0];
        foreach ($motors as $m) {
            $each = $atArmKg + $arm / 3;
            $about[0] += $each * $m->y ** 2;
            $about[1] += $each * $m->x ** 2;
            $about[2] += $each * ($m->x ** 2 + $m->y ** 2);
        }
        $middle = max(0.0, $massKg - \count($motors) * ($atArmKg + $arm));
        $k = ($middle / (1000 * self::PACK_DENSITY) / array_product(self::PACK_SHAPE)) ** (1 / 3);
        [$long, $wide, $high] = array_map(static fn (float $s): float => $s * $k, self::PACK_SHAPE);

        return [
            $about[0] + ($middle * ($wide ** 2 + $high ** 2)) / 12,
            $about[1] + ($middle * ($long ** 2 + $high ** 2)) / 12,
            $about[2] + ($middle * ($long ** 2 + $wide ** 2)) / 12,
        ];
    }
}

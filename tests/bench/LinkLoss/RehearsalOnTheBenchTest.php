<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\LinkLoss;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\LinkLoss\Rehearsal;
use Ortholex\Core\LinkLoss\RehearsalLook;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\Radio\Heard;
use Ortholex\Tests\bench\DeskCase;
use PHPUnit\Framework\Attributes\DataProvider;

/** The loss tried on the desk: four receivers by three plans, watched over the link as the application does. */
final class RehearsalOnTheBenchTest extends DeskCase
{
    /** @return iterable<string, array{Manner, string}> */
    public static function cases(): iterable
    {
        foreach (Manner::cases() as $manner) {
            foreach (['cut', 'descend', 'return'] as $then) {
                yield "$manner->value, $then" => [$manner, $then];
            }
        }
    }

    #[DataProvider('cases')]
    public function testTheVerdictIsRightAndTheTimeToNoticeToo(Manner $manner, string $then): void
    {
        $set = ['link_loss.hold_s' => 0.7, 'link_loss.then' => $then, 'link_loss.descend_s' => 5.0];
        $this->onDesk($set);
        $this->world->move('radio:manner', $manner->value);
        $this->world->move('radio:lever.B', '2');
        $this->pace->wait(0.4);
        $seen = $this->rehearse(LossPlan::in(SettingSet::of($set)), false);
        self::assertSame($manner, $seen->manner);
        if (\in_array($manner, [Manner::Repeats, Manner::Presets], true)) {
            self::assertNull($seen->noticedS);
            self::assertSame(Stage::Heard, $seen->ends);
            self::assertSame(Manner::Repeats === $manner, $seen->neverNoticed(), 'presets turn the lever of arming off');

            return;
        }
        self::assertEqualsWithDelta(LossPlan::NOTICE_S, $seen->noticedS, 1 / 150 + 0.05);
        self::assertEqualsWithDelta(0.7, $seen->actsS, 1 / 150 + 0.05);
        self::assertSame('cut' === $then ? Stage::Cut : ('return' === $then ? Stage::Return : Stage::Descend), $this->stageAt(1.2));
        self::assertFalse($seen->neverNoticed());
    }

    public function testALowPresetIsNoticedOnceTheBoardIsTold(): void
    {
        $set = ['link_loss.throttle_below_us' => 960.0, 'link_loss.hold_s' => 0.7];
        $this->onDesk($set);
        $this->world->move('radio:manner', 'presets');
        $this->world->move('radio:preset', '930');
        $this->world->move('radio:lever.B', '2');
        $this->pace->wait(0.4);
        $seen = $this->rehearse(LossPlan::in(SettingSet::of($set)), true);
        self::assertSame(Manner::Presets, $seen->manner);
        self::assertEqualsWithDelta(LossPlan::NOTICE_S, $seen->noticedS, 1 / 150 + 0.05);
    }

    /** With every control at rest a receiver that repeats looks like one that sets its channels: it is not guessed. */
    public function testAtRestItIsNotGuessed(): void
    {
        $plan = LossPlan::in(SettingSet::of([]));
        $rest = [1500.0, 1500.0, 1000.0, 1500.0, 1000.0];
        $looks = [];
        for ($t = 0.05; $t < 3; $t += 0.05) {
            $looks[] = new RehearsalLook($t, true, false, $rest, Stage::Heard, 0.004);
        }
        self::assertNull(Rehearsal::of($rest, $looks, $plan, false)->manner);
        self::assertSame(Manner::Repeats, Rehearsal::of([1500.0, 1500.0, 1000.0, 1500.0, 1800.0], array_map(
            static fn (RehearsalLook $l): RehearsalLook => new RehearsalLook(
                $l->atS,
                true,
                false,
                [1500.0, 1500.0, 1000.0, 1500.0, 1800.0],
                Stage::Heard,
                0.0,
            ),
            $looks,
        ), $plan, true)->manner);
    }

    private float $offAt = 0.0;

    /** @var array<int|string, Stage> */
    private array $stages = [];

    private function rehearse(LossPlan $plan, bool $armsOn): Rehearsal
    {
        $before = $this->client()->radio(0)->channels();
        $this->world->move('transmitter', '0');
        $this->offAt = $this->pace->now();
        $looks = [];
        for ($i = 0; $i < 60; ++$i) {
            $this->pace->wait(0.05);
            $now = $this->client()->radio(0);
            $at = $this->pace->now() - $this->offAt;
            $looks[] = new RehearsalLook(
                $at,
                Heard::Frames === $now->heard,
                Heard::Failsafe === $now->heard,
                $now->channels(),
                $now->guard->stage,
                $now->guard->sinceS,
            );
            $this->stages[\sprintf('%.1f', $at)] = $now->guard->stage;
        }

        return Rehearsal::of($before, $looks, $plan, $armsOn);
    }

    private function stageAt(float $s): ?Stage
    {
        return $this->stages[\sprintf('%.1f', $s)] ?? null;
    }
}

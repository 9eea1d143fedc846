<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Core\Position\Module\BaudFinder;
use Ortholex\Core\Position\Module\Constellations;
use Ortholex\Core\Position\Module\PlumbAnswer;
use Ortholex\Core\Position\Module\PlumbCommand;
use Ortholex\Core\Position\Nmea\NmeaReader;
use Ortholex\Core\Position\Nmea\NmeaReading;

/** The position receiver on the bench: what it says, forgets and remembers, and how it is found. */
final class PlumbTest extends AidsCase
{
    private const T = 1_796_000_000.0;

    public function testAllThatItSaysIsWhole(): void
    {
        $plumb = $this->plumb(self::T - 100);
        $reading = self::read($plumb->says(self::T, self::T + 60));
        self::assertSame([0, 0], [$reading->broken, $reading->unknown]);
        self::assertGreaterThan(60 * 15, $reading->whole);
        $last = $reading->last();
        self::assertNotNull($last);
        self::assertTrue($last->isInSpace());
        self::assertEqualsWithDelta(54.9, (float) $last->latDeg, 5e-5);
        self::assertEqualsWithDelta(-3.4, (float) $last->lonDeg, 5e-5);
        $used = \count(array_filter($plumb->satellites(self::T + 59.8), static fn ($s): bool => $s->used));
        self::assertSame($used, $last->used);
        self::assertEqualsWithDelta($plumb->hdop(self::T + 59.8) ?? 0.0, (float) $last->hdop, 0.01);
    }

    /** Its error has a spread of 0.7 m a HDOP in each direction: half of a round normal lies within 1.1774 of it. */
    public function testItWandersAsItIsSaidTo(): void
    {
        $plumb = $this->plumb(self::T - 100);
        $far = $hdop = [];
        for ($i = 0; $i < 4000; ++$i) {
            $far[] = hypot(...$plumb->error(self::T + 7.3 * $i));
            $hdop[] = $plumb->hdop(self::T + 7.3 * $i) ?? 0.0;
        }
        sort($far);
        $expected = 1.1774 * 0.7 * array_sum($hdop) / \count($hdop);
        self::assertEqualsWithDelta($expected, $far[2000], 0.15 * $expected);
        // And slowly: within a second it has hardly moved.
        [$n, $e] = $plumb->error(self::T);
        [$n1, $e1] = $plumb->error(self::T + 1);
        self::assertLessThan(0.25, hypot($n1 - $n, $e1 - $e));
    }

    public function testTheFirstFixTakesItsTimeAndARoofTakesItAway(): void
    {
        for ($i = 0; $i < 20; ++$i) {
            $on = self::T + 311.0 * $i;
            $plumb = $this->plumb($on);
            self::assertFalse($plumb->knows($on + 23.5));
            self::assertTrue($plumb->knows($on + 36.5), "switched on at $on");
        }
        $state = new PlumbState();
        $state->poweredAt = self::T - 100;
        $indoors = new PlumbG2($state, false, new ManualPace());
        $reading = self::read($indoors->says(self::T, self::T + 5));
        self::assertSame([0, 0], [$reading->broken, \count($reading->there())]);
        self::assertNotSame([], $reading->satellites, 'some are heard through the roof, too weakly');
    }

    public function testWhatItIsToldItForgetsUnlessItIsToldToRemember(): void
    {
        $state = new PlumbState();
        $state->poweredAt = self::T;
        $plumb = new PlumbG2($state, true, new ManualPace());
        self::assertStringContainsString('OK,BAUD', $plumb->hears(PlumbCommand::baud(115200)));
        self::assertSame(115200, $state->baud);
        $state->power(false, self::T + 5);
        $state->power(true, self::T + 6);
        self::assertSame(38400, $state->baud, 'forgotten');
        $plumb->hears(PlumbCommand::baud(9600).PlumbCommand::rate(1).PlumbCommand::sky(Constellations::Gps).PlumbCommand::keep());
        $state->power(false, self::T + 7);
        $state->power(true, self::T + 8);
        self::assertSame([9600, 1, 'GPS'], [$state->baud, $state->rate, $state->sky]);
        $is = PlumbAnswer::in($plumb->hears(PlumbCommand::ask()));
        self::assertEquals([9600, 1, Constellations::Gps, true], [$is?->baud, $is?->rate, $is?->sky, $is->kept ?? false]);
        self::assertFalse(PlumbAnswer::in($plumb->hears(PlumbCommand::baud(12345)))?->done, 'a rate it has not');
        self::assertSame('', $plumb->hears('$PPLG,BAUD,4800*00'), 'a wrong checksum is not obeyed');
        self::assertSame(9600, $state->baud);
        self::assertEquals($state, PlumbState::fromArray($state->toArray()));
    }

    public function testWhatDoesNotFitThroughItsLineIsCutOff(): void
    {
        $state = new PlumbState();
        $state->poweredAt = self::T - 100;
        $state->baud = 4800;
        $state->rate = 10;
        $reading = self::read((new PlumbG2($state, true, new ManualPace()))->says(self::T, self::T + 10));
        self::assertLessThan(480 * 10 + 200, \strlen((new PlumbG2($state, true, new ManualPace()))->says(self::T, self::T + 10)));
        self::assertGreaterThan(0, $reading->broken);
        self::assertSame([], $reading->there(), 'no position comes of a torn half: its two sentences never agree');
    }

    /** Told a hundred times another rate, constellation and how often, and to remember it: found at each. */
    public function testItsRateIsFoundEachTime(): void
    {
        $client = $this->onBench();
        $this->world->move('outdoors', '1');
        $even = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(41));
        $found = 0;
        for ($i = 0; $i < 100; ++$i) {
            $baud = PlumbG2::BAUDS[$even->getInt(1, 6)];
            $rate = [1, 2, 5][$even->getInt(0, 2)];
            $this->world->store->change(static function (WorldState $s) use ($baud, $rate, $even): void {
                $plumb = PlumbState::fromArray($s->plumb);
                [$plumb->baud, $plumb->rate, $plumb->sky] = [$baud, $rate, ['GPS', 'GALILEO', 'BOTH'][$even->getInt(0, 2)]];
                $s->plumb = $plumb->toArray();
            });
            $this->pace->wait($even->getInt(1, 400) / 100);
            $finder = BaudFinder::find(static fn (int $at): string => $client->listen('3', $at, false, 1.05));
            $found += $finder->baud === $baud ? 1 : 0;
        }
        self::assertSame(100, $found);
    }

    public function testSilenceIsTold(): void
    {
        $client = $this->onBench([], pack: false);
        $finder = BaudFinder::find(static fn (int $at): string => $client->listen('3', $at, false, 1.05));
        self::assertTrue($finder->silent, 'its rail is dead on the cable alone');
        self::assertNull($finder->baud);
        self::assertSame('', $this->aids()->say('3', 38400, PlumbCommand::ask()));
    }

    public function testItIsToldThroughTheBoard(): void
    {
        $this->onBench();
        $aids = $this->aids();
        self::assertNull(PlumbAnswer::in($aids->say('3', 9600, PlumbCommand::ask())), 'at the wrong rate it hears rubbish');
        self::assertTrue(PlumbAnswer::in($aids->say('3', 38400, PlumbCommand::baud(57600)))?->done);
        self::assertSame(57600, PlumbAnswer::in($aids->say('3', 57600, PlumbCommand::ask()))?->baud);
        $this->world->move('pack', '0');
        $this->world->move('cable', '0');
        $this->world->move('cable', '1');
        $this->world->move('pack', '1');
        $this->pace->wait(2.0);
        self::assertSame(38400, PlumbAnswer::in($this->aids()->say('3', 38400, PlumbCommand::ask()))?->baud, 'forgotten with its power');
    }

    private function plumb(float $since): PlumbG2
    {
        $state = new PlumbState();
        $state->poweredAt = $since;

        return new PlumbG2($state, true, new ManualPace());
    }

    private static function read(string $bytes): NmeaReading
    {
        $reader = new NmeaReader();
        $reader->feed($bytes);

        return $reader->reading();
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Wiring;

use Ortholex\App\Wiring\FaultMarks;
use Ortholex\App\Wiring\WiringView;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\Wiring;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** However a builder wires it, each fault has one mark, and no mark lies over another. */
final class FaultMarksTest extends TestCase
{
    public function testEachFaultHasAMarkAndNoneCoversAnother(): void
    {
        $random = new Lcg(20261130);
        $board = BoardPads::of('QUERN-F7');
        self::assertNotNull($board);
        $pads = array_keys($board->pads());
        $most = 0;
        for ($n = 0; $n < 200; ++$n) {
            $parts = array_filter(Part::all(), static fn (): bool => $random->whole(0, 1) > 0);
            $wires = [];
            foreach ($parts as $part) {
                foreach ($part->pins as $pin) {
                    if ($random->whole(0, 3) > 0) {
                        $wires[] = [$pin->id, $pads[$random->whole(0, \count($pads) - 1)]];
                    }
                }
            }
            $wiring = Wiring::of($board, array_keys($parts), $wires, []);
            $none = SettingSet::none();
            $view = new WiringView($wiring, $none, $none, true, true, false, false, [], []);
            $marks = $view->marks();
            self::assertSame(array_keys($wiring->faults), array_map(static fn (int $n): int => $n - 1, array_column($marks, 'n')));
            foreach ($marks as $i => $a) {
                foreach (\array_slice($marks, 0, $i) as $b) {
                    $apart = hypot($a['x'] - $b['x'], $a['y'] - $b['y']);
                    self::assertGreaterThanOrEqual(2 * FaultMarks::RADIUS, $apart, "marks {$a['n']} and {$b['n']} of wiring $n");
                }
                self::assertSame(!$wiring->faults[$i]->refuses, $a['mind']);
            }
            // What is told of a wire is what stands at it.
            $told = array_merge(...array_column($view->wires(), 'faults'));
            $onWires = array_filter($marks, static fn (array $m): bool => null !== $m['wire']);
            self::assertEqualsCanonicalizing(array_column($onWires, 'n'), $told);
            $most = max($most, \count($marks));
        }
        self::assertGreaterThan(8, $most, 'the wirings were wrong enough to tell');
    }
}

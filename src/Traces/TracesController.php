<?php

declare(strict_types=1);

namespace Ortholex\App\Traces;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Page\FrameDrawing;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Shell\BadRequest;
use Ortholex\Core\FlightLog\DerivedTrace;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Lag\Alignment;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class TracesController extends SheetController
{
    private const MOST_TRACES = 60;

    /** From the middle of the small drawing to its farthest motor. */
    private const REACH = 54.0;

    public function __construct(
        private readonly LogBook $book,
        private readonly LogStore $store,
        private readonly Airframes $airframes,
    ) {
    }

    #[Route('/craft/{slug}/52', name: 'traces', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $units = [];
        $beside = null === $log ? null : $this->book->besides($craft, $request, 1)[0] ?? null;
        foreach (array_unique([...$log->traces ?? [], ...$beside->traces ?? []]) as $name) {
            $units[$name] = ['unit' => Traces::unitOf($name) ?? '', 'words' => Traces::inWords($name)];
        }
        foreach (DerivedTrace::allOf($log->traces ?? []) + DerivedTrace::allOf($beside->traces ?? []) as $name => $trace) {
            $units[$name] = ['unit' => $trace->unit, 'words' => $trace->words];
        }
        $shown =
            $request->query->has('from') && $request->query->has('to')
                ? [(float) $request->query->getString('from'), (float) $request->query->getString('to')]
                : null;

        return $this->show(
            $craft,
            '52',
            'Traces/traces.html.twig',
            new TracesView($this->book->of($craft), $log, $units, $this->book->passages($log), $shown, $beside, $this->places($craft)),
        );
    }

    /** @return array<string, array{x: float, y: float}> where motors sit, from above, nose up; units of the small drawing */
    private function places(Craft $craft): array
    {
        $places = [];
        foreach (FrameDrawing::of($this->airframes->of($craft), self::REACH)->motors as $motor) {
            $places[$motor->place] = ['x' => $motor->x, 'y' => $motor->y];
        }

        return $places;
    }

    /** By how much another log has to be shifted so that its sticks move with this one's. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/aligned/{other<\d+>}.json', name: 'log_aligned', methods: ['GET'])]
    public function aligned(string $slug, int $id, int $other): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $names = ['throttle_pct', 'setpoint_roll_dps', 'setpoint_pitch_dps', 'setpoint_yaw_dps'];
        $found = Alignment::of(
            $this->store->load($this->book->one($craft, $id), $names),
            $this->store->load($this->book->one($craft, $other), $names),
        );

        return new JsonResponse([
            'shift_s' => null === $found ? null : round($found->shiftS, 3),
            'correlation' => null === $found ? null : round($found->correlation, 3),
            'alike' => null !== $found && $found->isAlike(),
        ]);
    }

    /**
     * Samples of some traces between two times, as many as a screen can show.
     *
     * Answer: length of a JSON head (32 bit, little-endian), the head, then one float32 block per trace: samples at
     * level 0, pairs of least and greatest above. Of derived traces, those that can be reckoned for so long a view.
     */
    #[Route('/craft/{slug}/logs/{id<\d+>}/samples', name: 'log_samples', methods: ['GET'])]
    public function samples(string $slug, int $id, Request $request): Response
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $wanted = explode(',', $request->query->getString('traces'));
        $traces = array_values(array_unique(array_intersect($wanted, $log->traces)));
        $derived = array_intersect_key(DerivedTrace::allOf($log->traces), array_flip($wanted));
        if ([] === $traces || \count($traces) > self::MOST_TRACES) {
            throw BadRequest::at('traces', 'Name one to '.self::MOST_TRACES.' traces that the log has.');
        }
        $from = max(0, min($log->samples - 1, $request->query->getInt('from')));
        $to = max($from + 1, min($log->samples, $request->query->getInt('to', $log->samples)));
        $view = $this->store->view($id, $traces, $from, $to);
        foreach ($derived as $name => $trace) {
            $data = $this->store->derived($id, $trace, $view['level'], $view['first'], $view['count']);
            if (null !== $data && \strlen($data) === \strlen($view['data'][0])) {
                $traces[] = $name;
                $view['data'][] = $data;
            }
        }
        $head = (string) json_encode([
            'size' => LogStore::FACTOR ** $view['level'],
            'first' => $view['first'],
            'count' => $view['count'],
            'pairs' => $view['level'] > 0,
            'traces' => $traces,
        ]);
        // Float32Array in the browser needs its bytes to start at a multiple of four.
        $head = str_pad($head, \strlen($head) + ((4 - (\strlen($head) % 4)) % 4));

        return new Response(pack('V', \strlen($head)).$head.implode('', $view['data']), 200, [
            'Content-Type' => 'application/octet-stream',
        ]);
    }
}

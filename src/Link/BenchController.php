<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Live\LiveState;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\World\NothingToMove;
use Ortholex\Core\World\Thing;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** The bench strip: hands on the physical world. */
#[AsController]
final readonly class BenchController
{
    public function __construct(private Crafts $crafts, private Benches $benches, private LiveState $live)
    {
    }

    #[Route('/craft/{slug}/bench', name: 'bench_move', methods: ['POST'])]
    public function move(string $slug, Request $request): Answer
    {
        $input = Input::of($request);
        $this->moved($slug, $input->text('thing', 60), $input->text('to', 80));

        return Answer::of($this->live->of($this->crafts->glance($slug)));
    }

    /** Switches on just those faults that were ticked. */
    #[Route('/craft/{slug}/bench/faults', name: 'bench_faults', methods: ['POST'])]
    public function faults(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->glance($slug);
        $bench = $this->benches->of($craft);
        $wanted = Input::of($request)->map('faults');
        $now = $bench->state()->faults;
        foreach (array_keys($bench->faults()) as $fault) {
            if (isset($wanted[$fault]) !== \in_array($fault, $now, true)) {
                $bench->move("fault:$fault", isset($wanted[$fault]) ? '1' : '0');
            }
        }

        return Answer::of($this->live->of($craft));
    }

    #[Route('/craft/{slug}/bench/swap', name: 'bench_swap', methods: ['POST'])]
    public function swap(string $slug, Request $request): Answer
    {
        $input = Input::of($request);
        $what = 'escs' === $input->text('what', 10) ? Thing::SwapEscs : Thing::SwapMotors;
        $this->moved($slug, $what->value, $input->text('a', 40).','.$input->text('b', 40));

        return Answer::said('Swapped on the desk.');
    }

    /** Makes the craft ready to fly: props on, carried outdoors, transmitter on, and then the pack. */
    #[Route('/craft/{slug}/bench/ready', name: 'bench_ready', methods: ['POST'])]
    public function ready(string $slug): Answer
    {
        foreach (['props', 'outdoors', 'transmitter', 'pack'] as $thing) {
            $this->moved($slug, $thing, '1');
        }

        return Answer::of();
    }

    private function moved(string $slug, string $thing, string $to): void
    {
        try {
            $this->benches->of($this->crafts->glance($slug))->move($thing, $to);
        } catch (NothingToMove $e) {
            throw BadRequest::at('thing', $e->getMessage());
        }
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Link\Aids\DrawnPicture;
use Ortholex\Core\Overlay\ItemText;
use Ortholex\Core\Overlay\Layout;
use Ortholex\Core\Overlay\Layouts;
use Ortholex\Core\Overlay\OverlayError;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\OverlayReadings;
use Ortholex\Core\Overlay\Raster;
use Ortholex\Core\Overlay\ShownWhen;
use Ortholex\Core\Overlay\Source\VoltageFrom;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 42: the picture, and what is drawn over it. */
#[AsController]
final class OverlayController extends SheetController
{
    public function __construct(
        private readonly Staging $staging,
        private readonly Watched $watched,
        private readonly Fonts $fonts,
        private readonly Shelf $shelf,
        private readonly LinkService $links,
        private readonly Jobs $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/42', name: 'overlay', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $set = $this->staging->preview($craft);
        $layouts = Layouts::in($set);
        $number = $this->number($layouts, $request->query->getInt('layout', 1));
        $picture = $this->watched->now($craft);
        $column = max(0, min($layouts->raster->columns() - 1, $request->query->getInt('column')));
        $row = max(0, min($layouts->raster->rows() - 1, $request->query->getInt('row')));
        $written = $this->entities->getRepository(Job::class)->findOneBy(['craft' => $craft, 'kind' => 'write_chip'], ['id' => 'DESC']);
        $others = [];
        foreach ($this->crafts->all() as $other) {
            if ($other->slug !== $craft->slug && $other->isKnown() && $other->settings->has('overlay.layouts')) {
                $others[$other->slug] = $other->name;
            }
        }

        return $this->show($craft, '42', 'Overlay/overlay.html.twig', new OverlayView(
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $number,
            $layouts,
            $this->items($craft, $layouts->layouts[$number], $number, $picture),
            $this->fonts->of($craft),
            $this->fonts->isShipped($craft),
            $craft->settings,
            $set,
            $craft->sensors,
            $craft->version(),
            $this->watched->chip($craft),
            $picture,
            $this->watched->verdict($craft),
            $this->shelf->chipItems(),
            $written,
            $others,
            [$column, $row],
            null !== $picture,
            $this->words,
        ));
    }

    /** What the items show now, and how the craft leans. */
    #[Route('/craft/{slug}/overlay/now.json', name: 'overlay_now', methods: ['GET'])]
    public function now(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $layouts = Layouts::in($this->staging->preview($craft));
        $number = $this->number($layouts, $request->query->getInt('layout', 1));
        $before = $this->watched->verdict($craft);
        $picture = $this->watched->now($craft);
        $state = $this->links->state($craft);
        $rows = [];
        foreach ($this->items($craft, $layouts->layouts[$number], $number, $picture) as $item) {
            $rows[$item->item->value] = $item->rows;
        }

        return new JsonResponse([
            'live' => null !== $picture,
            'rows' => $rows,
            'roll' => round($state->rollDeg ?? 0.0, 1),
            'pitch' => round($state->pitchDeg ?? 0.0, 1),
            'anew' => $before !== $this->watched->verdict($craft),
        ]);
    }

    /** Puts an item into a cell, moves it there, or takes it away. */
    #[Route('/craft/{slug}/overlay/put', name: 'overlay_put', methods: ['POST'])]
    public function put(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $layouts = Layouts::in($this->staging->preview($craft));
        $number = $this->number($layouts, $input->whole('layout', 1, Layouts::MOST));
        $item = OverlayItem::tryFrom($input->text('item', 40)) ?? throw BadRequest::at('item', 'Choose what to put there.');
        $layout = $layouts->layouts[$number];
        if ($input->flag('away')) {
            return $this->stage($craft, $layouts->with($number, $layout->without($item)), $number);
        }
        [$wide, $high] = $item->size();
        // A cell that is pointed at near the edge: it is put as near as it goes.
        $column = min($input->whole('column', 0, 60), $layouts->raster->columns() - $wide);
        $row = min($input->whole('row', 0, 40), $layouts->raster->rows() - $high);
        try {
            return $this->stage($craft, $layouts->with($number, $layout->with($item, $column, $row)), $number);
        } catch (OverlayError $e) {
            throw BadRequest::at('item', $this->words->ofProblem($e));
        }
    }

    /** Another raster: what moves is said. */
    #[Route('/craft/{slug}/overlay/raster', name: 'overlay_raster', methods: ['POST'])]
    public function raster(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $raster = Raster::tryFrom(Input::of($request)->text('raster', 20)) ?? throw BadRequest::at('raster', 'There is no such raster.');
        [$layouts, $moved] = Layouts::in($this->staging->preview($craft))->on($raster);
        $this->staging->stage($craft, ['overlay.raster' => $raster->value] + $this->changed($craft, $layouts->settings()));
        $shifted = array_unique(
            array_merge(...array_map(static fn (array $m): array => array_column($m[0], 'value'), array_values($moved))),
        );
        $away = array_unique(array_merge(...array_map(static fn (array $m): array => array_column($m[1], 'value'), array_values($moved))));

        return Answer::said(
            'Staged. '.([] === $shifted ? 'All keep their distance from their corner.' : 'Moved: '.$this->names($shifted).'.').
                ([] === $away ? '' : ' No room, and put away: '.$this->names($away).'.'),
        );
    }

    /** Another layout, or when one is shown, or one away. */
    #[Route('/craft/{slug}/overlay/layout', name: 'overlay_layout', methods: ['POST'])]
    public function layout(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $layouts = Layouts::in($this->staging->preview($craft));
        $when = $layouts->when;
        $number = $input->whole('layout', 1, Layouts::MOST);
        if ($input->flag('add')) {
            if (\count($when) >= Layouts::MOST) {
                throw BadRequest::at('layout', 'There are '.Layouts::MOST.' layouts already.');
            }
            $number = (int) array_values(array_diff(range(1, Layouts::MOST), array_keys($when)))[0];
            $when[$number] = ShownWhen::Armed;
            // It begins as the one that was looked at.
            $from = $layouts->layouts[$this->number($layouts, $input->whole('layout', 1, Layouts::MOST))];
            $values = $layouts->with($number, $from)->settings();
        } elseif ($input->flag('away')) {
            if (1 === $number || !isset($when[$number])) {
                throw BadRequest::at('layout', 'The first layout stays: something has to be shown when nothing else is.');
            }
            unset($when[$number]);
            $values = $layouts->with($number, Layout::empty($layouts->raster))->settings();
            $number = 1;
        } else {
            $when[$number] = ShownWhen::tryFrom($input->text('when', 20)) ?? throw BadRequest::at('when', 'Say when it is shown.');
            $values = [];
        }
        $this->staging->stage($craft, ['overlay.layouts' => Layouts::timesText($when)] + $this->changed($craft, $values));

        return Answer::of()->to("/craft/$slug/42?layout=$number");
    }

    /** All layouts of another craft, on the raster of this one. */
    #[Route('/craft/{slug}/overlay/copy', name: 'overlay_copy', methods: ['POST'])]
    public function copy(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $from = $this->crafts->named(Input::of($request)->text('from', 40));
        $set = $this->staging->preview($craft);
        [$layouts] = Layouts::in($from->settings)->on(Layouts::in($set)->raster);
        $values = ['overlay.layouts' => Layouts::timesText($layouts->when)] + $layouts->settings();
        $this->staging->stage($craft, $this->changed($craft, $values));

        return Answer::said("As on {$from->name}, on this craft’s raster.")->to("/craft/$slug/42");
    }

    #[Route('/craft/{slug}/overlay/source', name: 'overlay_source', methods: ['POST'])]
    public function source(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $from = VoltageFrom::tryFrom(Input::of($request)->text('from', 20)) ?? throw BadRequest::at('from', 'There is no such source.');
        $this->staging->stage($craft, ['overlay.voltage_from' => $from->value]);

        return Answer::of();
    }

    /** Firmware into the chip; without an image, the letters. */
    #[Route('/craft/{slug}/overlay/chip', name: 'overlay_chip', methods: ['POST'])]
    public function chip(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $image = Input::of($request)->text('image', 60);
        $title = '' === $image ? 'Write letters into the overlay chip' : 'Write firmware into the overlay chip';

        return Answer::of(['job' => $this->jobs->start($craft, 'write_chip', $title, ['image' => $image])->id]);
    }

    #[Route('/craft/{slug}/overlay/letters.txt', name: 'overlay_letters', methods: ['GET'])]
    public function letters(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        return new Response($this->fonts->of($craft)->write(), 200, [
            'Content-Type' => 'text/plain; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', "$slug-letters.txt"),
        ]);
    }

    /** Another set of letters, in the open plain format; nothing given: the shipped ones. */
    #[Route('/craft/{slug}/overlay/letters', name: 'overlay_take_letters', methods: ['POST'])]
    public function takeLetters(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $file = $request->files->get('letters');
        $text = $file instanceof \Symfony\Component\HttpFoundation\File\UploadedFile
            ? (string) file_get_contents($file->getPathname(), length: 2_000_000)
            : Input::of($request)->text('text', 1_000_000);
        if ('' === trim($text)) {
            $this->fonts->ship($craft);

            return Answer::said('The shipped letters again. Write them into the chip.');
        }
        try {
            $font = $this->fonts->take($craft, $text);
        } catch (OverlayError $e) {
            throw BadRequest::at('letters', $this->words->ofProblem($e));
        }

        return Answer::said(\count($font->glyphs).' letters read. Write them into the chip.');
    }

    private function stage(Craft $craft, Layouts $layouts, int $number): Answer
    {
        $this->staging->stage($craft, $this->changed($craft, $layouts->settings()));

        return Answer::of()->to("/craft/$craft->slug/42?layout=$number");
    }

    /**
     * @param array<string, string> $values
     *
     * @return array<string, string> those that are otherwise now, or staged
     */
    private function changed(Craft $craft, array $values): array
    {
        $set = $this->staging->preview($craft);

        return array_filter(
            $values,
            static fn (string $value, string $name): bool => $set->has($name) && $set->text($name) !== $value,
            \ARRAY_FILTER_USE_BOTH,
        );
    }

    private function number(Layouts $layouts, int $asked): int
    {
        return isset($layouts->layouts[$asked]) ? $asked : (int) array_key_first($layouts->layouts);
    }

    /** @param array<string> $items */
    private function names(array $items): string
    {
        return implode(', ', array_map(fn (string $i): string => $this->words->of(OverlayItem::from($i)), $items));
    }

    /** @return list<ShownItem> */
    private function items(Craft $craft, Layout $layout, int $number, ?DrawnPicture $picture): array
    {
        $set = $this->staging->preview($craft);
        $committed = Layouts::in($craft->settings)->layouts[$number] ?? null;
        $sample = self::sample($craft);
        $items = [];
        foreach ($layout->items() as $item) {
            [$column, $row] = $layout->at[$item->value];
            [$wide, $high] = $item->size();
            $staged = ($committed->at[$item->value] ?? null) !== $layout->at[$item->value];
            $need = $item->needs();
            $items[] = new ShownItem(
                $item,
                $this->words->of($item),
                $column,
                $row,
                $wide,
                $high,
                // Where the chip draws this very item, its own cells; else what it would show.
                $this->drawn($picture, $number, $staged, $column, $row, $wide, $high)
                    ?? ($picture->items[$item->code()] ?? ItemText::of($item, $sample)),
                null !== $need && !$need->isMet($set, $craft->sensors),
                $staged,
            );
        }

        return $items;
    }

    /** @return list<string>|null */
    private function drawn(?DrawnPicture $picture, int $number, bool $staged, int $column, int $row, int $wide, int $high): ?array
    {
        if (null === $picture || $picture->layout !== $number || $staged) {
            return null;
        }
        $rows = [];
        for ($r = $row; $r < $row + $high; ++$r) {
            $rows[] = str_pad(substr($picture->rows[$r] ?? '', $column, $wide), $wide);
        }

        return $rows;
    }

    /** What a craft of this kind would show in the middle of a flight. */
    private static function sample(Craft $craft): OverlayReadings
    {
        $cells = $craft->settings->whole('pack.cells', 4);

        return new OverlayReadings(
            packV: 3.7 * $cells,
            cells: $cells,
            currentA: 21.4,
            usedAh: 0.62,
            minutesLeft: 4.5,
            flightS: 187,
            linkPct: 98,
            signalDbm: -67,
            throttlePct: 42,
            heightM: 23,
            climbMs: 0.4,
            speedMs: 6.2,
            homeM: 148,
            homeDeg: 200,
            latDeg: 54.9012,
            lonDeg: -3.4021,
            satellites: 14,
            headingDeg: 35,
            rollDeg: 6,
            pitchDeg: -3,
            cameraDeg: -20,
            mhz: $craft->settings->number('video.mhz', 5788),
            name: $craft->name,
            modes: 'angle',
            warnings: ['pack low'],
        );
    }
}

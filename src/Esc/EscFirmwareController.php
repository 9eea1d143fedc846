<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Shelf\EscShelfItem;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SentText;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Sheet 12, second half: firmware for the ESCs. */
#[AsController]
final class EscFirmwareController extends SheetController
{
    /** What the trade of switching frequencies is reckoned for: hover of a motor, and volts of a resting cell. */
    public const HOVER_DUTY = 0.35;

    public const HOVER_AMPS = 4.0;
    private const CELL_V = 3.8;

    /** An ESC has 16 kB; in hex that is some 45 kB. */
    private const MOST_BYTES = 400_000;

    public function __construct(
        private readonly Shelf $shelf,
        private readonly Escs $escs,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Jobs $jobs,
        private readonly Airframes $frames,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
        private readonly CraftInterlocks $interlocks,
        private readonly UrlGeneratorInterface $urls,
        private readonly EscOrders $orders,
    ) {
    }

    #[Route('/craft/{slug}/12/escs', name: 'esc_firmware', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $pre = $request->query->getBoolean('pre');
        $images = array_values(array_filter($this->images($craft), static fn (EscImage $i): bool => $pre || !$i->version->isPreRelease()));
        $chosen =
            array_values(array_filter($images, static fn (EscImage $i): bool => $i->key() === $request->query->getString('image')))[0] ??
            null;
        $flash = $this->entities->getRepository(Job::class)->findOneBy(['craft' => $craft, 'kind' => 'flash-escs'], ['id' => 'DESC']);
        if (null !== $flash) {
            $flash = $this->jobs->find((int) $flash->id);
        }
        $state = $this->benches->of($craft)->state();

        return $this->show(
            $craft,
            '12',
            'Esc/firmware.html.twig',
            new EscFirmwareView(
                $this->frames->of($craft),
                Escs::identities($craft),
                array_flip(EscTable::pads($craft->settings)),
                $images,
                $chosen,
                $pre,
                $flash,
                $this->links->isLinked($craft),
                $state->pack,
                $state->propsDeclaredOff,
                $this->escs->isRead($craft),
                $craft->escsProblem,
                self::nowKhz($craft),
                $this->orders->open($craft),
                $craft->settings,
            ),
        );
    }

    /** An image from disk, with the manifest that came with it where the shelf does not know its bytes. */
    #[Route('/craft/{slug}/12/escs/from-disk', name: 'esc_firmware_from_disk', methods: ['POST'])]
    public function fromDisk(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        try {
            $hex = SentText::of($request, 'hex', 'hex', self::MOST_BYTES, 'ESC image');
            $manifest = SentText::of($request, 'manifest', 'manifest', self::MOST_BYTES, 'manifest');
            $item = $this->shelf->takeInEsc($hex, '' === $manifest ? null : $manifest);
        } catch (FirmwareError $e) {
            throw BadRequest::at('hex', 'This image was not taken: '.lcfirst($this->words->ofProblem($e)));
        }
        $key = EscImage::keyOf($item->manifest->product, $item->manifest->version, $item->manifest->switchingKhz);
        $pre = $item->manifest->version->isPreRelease() ? ['pre' => 1] : [];
        $to = $this->urls->generate('esc_firmware', ['slug' => $slug, 'image' => $key] + $pre);

        return Answer::of(['image' => $key, 'said' => "{$item->manifest->inWords()} is among the images."])->to($to);
    }

    #[Route('/craft/{slug}/12/escs/write', name: 'esc_firmware_write', methods: ['POST'])]
    public function write(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $this->links->demandLinked($craft);
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::FlashEsc);
        if (!$this->escs->isRead($craft)) {
            throw BadRequest::at('escs', 'The ESCs do not answer now. Connect the flight pack while the board is linked.');
        }
        $places = array_values(array_filter($this->asked($input)));
        if (
            [] !==
            array_intersect($places, array_keys(array_filter(Escs::identities($craft), static fn (?EscIdentity $e): bool => null === $e)))
        ) {
            // One that was silent may have been mended since.
            $this->links->readEscs($craft);
        }
        $key = $input->text('image', 80);
        $image =
            array_values(array_filter($this->images($craft), static fn (EscImage $i): bool => $i->key() === $key))[0] ??
            throw BadRequest::at('image', "There is no ESC image “{$key}” on the shelf.");
        $images = [];
        foreach ($places as $place) {
            $fit = $image->fits[$place] ?? throw BadRequest::at('places', "No ESC answered at “{$place}”.");
            if (!$fit->mayBeWritten()) {
                throw BadRequest::at(
                    'places',
                    ucfirst(str_replace('_', ' ', $place)).': '.implode(' ', $this->words->all($fit->reasons)),
                );
            }
            $images[$place] = $image->items[$place]->name;
        }
        if ([] === $images) {
            throw BadRequest::at('places', 'Choose at least one ESC to write to.');
        }
        $job = $this->jobs->start(
            $craft,
            'flash-escs',
            'Write '.
                $image->product.
                ' '.
                $image->version->toString().
                ' to '.
                \count($images).
                (1 === \count($images) ? ' ESC' : ' ESCs'),
            ['escs' => $images, 'image' => $key],
        );
        $this->jobs->answers($job);

        return Answer::of(['job' => $job->id])->to($this->urls->generate('esc_firmware', ['slug' => $slug]));
    }

    /** What is left of earlier writes is left as it is. */
    #[Route('/craft/{slug}/12/escs/aside', name: 'esc_firmware_aside', methods: ['POST'])]
    public function aside(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->orders->aside($craft);
        foreach ($this->entities->getRepository(Job::class)->findBy(['craft' => $craft, 'kind' => 'flash-escs', 'seen' => false]) as $job) {
            $job->seen = $job->seen || !$job->isOpen();
        }
        $this->entities->flush();

        return Answer::said('');
    }

    /** @return list<string> places: ticked in the form, or named one after the other */
    private function asked(Input $input): array
    {
        $ticked = array_values(array_filter($input->map('place'), \is_string(...)));

        return [] === $ticked ? explode(',', $input->text('places', 200)) : $ticked;
    }

    /** @return list<EscImage> newest first */
    private function images(Craft $craft): array
    {
        $escs = array_filter(Escs::identities($craft));
        $volts = self::CELL_V * (is_numeric($craft->settings['pack.cells'] ?? null) ? (float) $craft->settings['pack.cells'] : 4.0);
        $now = self::nowKhz($craft);
        $dead = [] === $escs ? 350 : max(array_map(static fn (EscIdentity $e): int => $e->deadTimeNs, $escs));
        $slowest = [] === $escs ? 64 : min(array_map(static fn (EscIdentity $e): int => $e->clockMhz, $escs));
        $today = SwitchingTrade::of(max(1, $now), $volts, self::HOVER_AMPS, self::HOVER_DUTY, $dead);
        /** @var array<string, non-empty-list<EscShelfItem>> $releases */
        $releases = [];
        foreach ($this->shelf->escItems() as $item) {
            $releases["{$item->manifest->product} {$item->manifest->version->toString()} {$item->manifest->switchingKhz}"][] = $item;
        }
        $images = [];
        foreach ($releases as $items) {
            $m = $items[0]->manifest;
            $chosen = $fits = [];
            $running = 0;
            foreach ($escs as $place => $esc) {
                $chosen[$place] = self::nearest($items, $esc);
                $fits[$place] = $chosen[$place]->manifest->fit($esc);
                $running +=
                    $esc->family === $m->product
                    && 0 === $m->version->compare($esc->version ?? $m->version)
                    && $esc->switchingKhz === $m->switchingKhz
                        ? 1
                        : 0;
            }
            $trade = SwitchingTrade::of($m->switchingKhz, $volts, self::HOVER_AMPS, self::HOVER_DUTY, $dead);
            $images[] = new EscImage(
                $m->product,
                $m->version,
                $m->switchingKhz,
                $m->date,
                $m->notes,
                $chosen,
                $fits,
                $trade,
                $trade->flightTimePct($today, $volts * self::HOVER_DUTY * self::HOVER_AMPS),
                SwitchingTrade::steps($slowest, $m->switchingKhz),
                [] !== $escs && $running === \count($escs),
            );
        }

        return $images;
    }

    /** @param non-empty-list<EscShelfItem> $items */
    private static function nearest(array $items, EscIdentity $esc): EscShelfItem
    {
        $score = static fn (EscShelfItem $i): int => 4 * (int) ($i->manifest->layout === $esc->layout) +
            2 * (int) ($i->manifest->clockMhz === $esc->clockMhz) +
            (int) ($i->manifest->deadTimeNs === $esc->deadTimeNs);
        usort($items, static fn (EscShelfItem $a, EscShelfItem $b): int => $score($b) <=> $score($a));

        return $items[0];
    }

    /** Switching frequency that most ESCs run, kHz; 0 while none is known. */
    private static function nowKhz(Craft $craft): int
    {
        $known = array_filter(Escs::identities($craft));
        $counts = array_count_values(array_map(static fn (EscIdentity $e): int => $e->switchingKhz, $known));
        arsort($counts);

        return (int) (array_key_first($counts) ?? 0);
    }
}

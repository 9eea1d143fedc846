<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Link\Ports;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Fields;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Camera\ServoLaw;
use Ortholex\Core\Craft\PadLoad;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Video\ChannelPlan;
use Ortholex\Core\Video\Heron;
use Ortholex\Core\Video\VideoError;
use Ortholex\Core\Video\Wire\HeronVerb;
use Ortholex\Core\Wiring\PartRole;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 43: where the camera looks, and what its transmitter sends. */
#[AsController]
final class CameraController extends SheetController
{
    private const FIELDS = [
        'camera' => [
            'camera.rest_deg',
            'camera.us_per_deg',
            'camera.reversed',
            'camera.follows_pitch',
            'camera.knob_channel',
            'camera.pulse_hz',
            'camera.low_us',
            'camera.middle_us',
            'camera.high_us',
        ],
        'video' => ['video.mhz', 'video.low_until_armed'],
    ];

    public function __construct(
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly CruiseKnown $cruise,
        private readonly Transmitter $transmitter,
        private readonly PlaceLaws $laws,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Ports $ports,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/43', name: 'camera', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $look = CameraLook::tryFrom($request->query->getString('look')) ?? CameraLook::Camera;
        $set = $this->staging->preview($craft);
        $bench = $this->benches->of($craft)->state();
        $port = $this->ports->of($craft, PartRole::Video);
        $table = $this->transmitter->table($craft);
        $offer = null === $table ? Heron::mhz() : $table->mhz;
        $place = $this->laws->place();
        $law = $this->laws->of($place);
        $pilots = max(0, min(ChannelPlan::MOST_PILOTS, $request->query->getInt('pilots')));
        $taken = self::taken($request->query->getString('taken'));
        $plan = null;
        $problem = '';
        if ($pilots > 0) {
            try {
                $plan = ChannelPlan::best(null === $law ? $offer : $law->allowed($offer), $pilots, $taken);
            } catch (VideoError $e) {
                $problem = $this->words->ofProblem($e);
            }
        }

        return $this->show($craft, '43', 'Camera/camera.html.twig', new CameraView(
            $look,
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $craft->settings,
            $this->staging->of($craft),
            $set,
            array_map(fn (array $names): array => $this->fields->of($craft, $names), self::FIELDS),
            $bench->cameraDeg,
            $bench->buzzes,
            ServoLaw::in($set)->restDeg,
            $this->cruise->of($craft),
            $this->ports->has($craft, PartRole::Video),
            $port,
            null !== $port && !$bench->pack && $this->ports->needsPack($craft, $port[0]),
            CameraLook::Video === $look ? $this->transmitter->now($craft) : null,
            null !== $table,
            null === $table ? Heron::POWERS : $table->mw,
            new BandPlot($offer, $taken, $plan?->mhz() ?? [], $set->number('video.mhz', 5788), $law),
            $plan,
            $problem,
            $pilots,
            implode(', ', array_map(static fn (float $f): string => \sprintf('%g', $f), $taken)),
            $place,
            $this->lawsOrNone(),
            $this->laws->text(),
            new HeatPlot($this->transmitter->warmed($craft)),
            $this->words,
        ));
    }

    /** Drives the servo with a pulse, for a moment. */
    #[Route('/craft/{slug}/camera/try', name: 'camera_try', methods: ['POST'])]
    public function tries(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $us = Input::of($request)->number('us', 500, 2500);
        $pads = array_keys($craft->settings->drives(), PadLoad::CameraTilt->value, true);
        if ([] === $pads) {
            throw BadRequest::at('us', 'No output of the board drives a camera yet: choose one, and commit.');
        }
        try {
            (new AidsClient($this->benches->client($craft)))->servo((int) $pads[0], $us);
        } catch (LinkError $e) {
            throw BadRequest::at('us', $e->getMessage());
        }

        return Answer::of(
            ['deg' => $this->benches->of($craft)->state()->cameraDeg, 'buzzes' => $this->benches->of($craft)->state()->buzzes],
        );
    }

    /** What was seen at a pulse: it binds there, looks level, or so many degrees up. */
    #[Route('/craft/{slug}/camera/mark', name: 'camera_mark', methods: ['POST'])]
    public function mark(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $us = round($input->number('us', 500, 2500));
        $law = ServoLaw::in($this->staging->preview($craft));
        $values = match (Seen::tryFrom($input->text('what', 10))) {
            Seen::Binds => $us < $law->middleUs ? ['camera.low_us' => $us] : ['camera.high_us' => $us],
            Seen::Level => ['camera.middle_us' => $us],
            Seen::Points => $this->slope($law, $us, $input->number('deg', -120, 120)),
            null => throw BadRequest::at('what', 'Say what was seen: it binds here, it looks level, or how far up it points.'),
        };
        $this->staging->stage($craft, $values);

        return Answer::said('Staged.');
    }

    /** Which output drives it; 0 for none. */
    #[Route('/craft/{slug}/camera/pad', name: 'camera_pad', methods: ['POST'])]
    public function pad(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $pad = Input::of($request)->whole('pad', 0, SettingSet::PADS);
        $set = $this->staging->preview($craft);
        $drives = $set->drives();
        $does = $drives[$pad] ?? PadLoad::None->value;
        if (PadLoad::None->value !== $does && PadLoad::CameraTilt->value !== $does) {
            throw BadRequest::at(
                'pad',
                "Output $pad drives the motor ".$this->words->name($does).': a servo there would get what a motor gets.',
            );
        }
        $values = [];
        foreach (array_keys($drives, PadLoad::CameraTilt->value, true) as $was) {
            $values["pad.$was.drives"] = PadLoad::None->value;
        }
        if ($pad > 0) {
            $values["pad.$pad.drives"] = PadLoad::CameraTilt->value;
        }
        $this->staging->stage($craft, $values);

        return Answer::of();
    }

    /** Where it will be flown: said once, for all craft. */
    #[Route('/craft/{slug}/video/place', name: 'video_place', methods: ['POST'])]
    public function place(string $slug, Request $request): Answer
    {
        $this->crafts->named($slug);
        $place = Input::of($request)->text('place', 120);
        if (!isset($this->lawsOrNone()[$place])) {
            throw BadRequest::at('place', 'That place is not in the table. Add it there, with its source.');
        }
        $this->laws->choose($place);

        return Answer::of();
    }

    /** The table of places, edited. */
    #[Route('/craft/{slug}/video/laws', name: 'video_laws', methods: ['POST'])]
    public function laws(string $slug, Request $request): Answer
    {
        $this->crafts->named($slug);
        try {
            $laws = $this->laws->write(Input::of($request)->text('table', 40_000));
        } catch (\InvalidArgumentException $e) {
            throw BadRequest::at('table', $this->words->ofProblem($e));
        }

        return Answer::said(\count($laws).' places are in the table now.');
    }

    #[Route('/craft/{slug}/video/read', name: 'video_read', methods: ['POST'])]
    public function read(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $port = $this->ports->of($craft, PartRole::Video) ?? throw BadRequest::at('read', 'No video transmitter is drawn on 13 Wiring.');
        $table = $this->transmitter->read($craft) ?? throw BadRequest::at(
            'read',
            "{$port[0]->name} does not answer on its wire: it needs its rail, so the pack, and ground.",
        );

        return Answer::said(\sprintf('%d channels and %d powers read from the module.', \count($table->mhz), \count($table->mw)));
    }

    /** Watches it get warm, and tells whether something is new. */
    #[Route('/craft/{slug}/video/watch', name: 'video_watch', methods: ['POST'])]
    public function watch(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $before = $craft->video;
        $this->transmitter->now($craft);

        return new JsonResponse(['changed' => $before !== $craft->video]);
    }

    /** Full power for a while, to see how warm it gets: only as much as the law lets. */
    #[Route('/craft/{slug}/video/power', name: 'video_power', methods: ['POST'])]
    public function power(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $mw = $input->number('mw', 0.1, 2000);
        $set = $this->staging->preview($craft);
        $this->demandLawful($mw, $set->number('video.mhz', 5788));
        if ($input->flag('now')) {
            $this->links->demandLinked($craft);
            $told = $this->transmitter->tell($craft, HeronVerb::Power, $mw);

            return $told ? Answer::said(\sprintf('It sends %g mW now; a restart brings back what is set.', $mw)) : throw BadRequest::at(
                'mw',
                'The transmitter did not take it. Is it heard, and can it send at that power?',
            );
        }
        $this->staging->stage($craft, ['video.power_mw' => $mw]);

        return Answer::of();
    }

    private function demandLawful(float $mw, float $mhz): void
    {
        $law = $this->laws->of($this->laws->place()) ?? throw BadRequest::at('mw', 'Say first where it will be flown.');
        if ($mw > $law->mostMw($mhz)) {
            throw BadRequest::at(
                'mw',
                \sprintf('%g mW at %.0f MHz is more than %g mW, which %s lets.', $mw, $mhz, $law->mostMw($mhz), $law->place),
            );
        }
    }

    /** @return array<string, float|bool> */
    private function slope(ServoLaw $law, float $us, float $deg): array
    {
        $slope = ServoLaw::slope([$law->middleUs, 0.0], [$us, $deg])
            ?? throw BadRequest::at('deg', 'Point it 5° or more beside level, so that the travel can be told.');
        if ($slope[0] < 2 || $slope[0] > 40) {
            throw BadRequest::at(
                'deg',
                \sprintf('That would be %.1f µs a degree, and servos have 2 to 40: was level marked first?', $slope[0]),
            );
        }

        return ['camera.us_per_deg' => round($slope[0], 1), 'camera.reversed' => $slope[1]];
    }

    /** @return array<string, \Ortholex\Core\Video\PlaceLaw> */
    private function lawsOrNone(): array
    {
        try {
            return $this->laws->all();
        } catch (\InvalidArgumentException) {
            return [];
        }
    }

    /** @return list<float> */
    private static function taken(string $text): array
    {
        $taken = array_map(static fn (string $f): string => trim($f), explode(',', mb_scrub($text)));
        $mhz = array_map(floatval(...), array_filter($taken, static fn (string $f): bool => is_numeric($f) && $f >= 1000 && $f <= 7000));

        return array_values(array_unique(\array_slice($mhz, 0, 8)));
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Location;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Link\Ports;
use Ortholex\App\Location\Compass\Disturbed;
use Ortholex\App\Location\Compass\Turned;
use Ortholex\App\Location\Home\Homing;
use Ortholex\App\Location\Home\ReturnPath;
use Ortholex\App\Location\Home\ReturnWrong;
use Ortholex\App\Location\Home\Tracks;
use Ortholex\App\Location\Sky\Receiver;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Fields;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Position\Module\Constellations;
use Ortholex\Core\Position\Module\PlumbCommand;
use Ortholex\Core\Wiring\PartRole;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 41: where a craft is, and what it can do with that. */
#[AsController]
final class LocationController extends SheetController
{
    private const FIELDS = [
        'sky' => ['location.least_satellites', 'location.most_hdop', 'interlock.if_no_fix'],
        'compass' => [
            'compass.enabled',
            'compass.declination_deg',
            'hold.dead_band_pct',
            'hold.most_tilt_deg',
            'altitude_hold.neutral_pct',
        ],
        'home' => [
            'return.height_m',
            'return.speed_ms',
            'return.climb_ms',
            'return.sink_ms',
            'return.least_m',
            'return.if_near',
            'return.most_m',
        ],
    ];

    public function __construct(
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly Receiver $receiver,
        private readonly EarthHere $earth,
        private readonly Homing $homing,
        private readonly Tracks $tracks,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly CraftInterlocks $interlocks,
        private readonly Ports $ports,
        private readonly Jobs $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/41', name: 'location', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $look = LocationLook::tryFrom($request->query->getString('look')) ?? LocationLook::Sky;
        $set = $this->staging->preview($craft);
        $bench = $this->benches->of($craft)->state();
        $port = $this->ports->of($craft, PartRole::Gps);
        $earth = $this->earth->of($craft);
        $turning = $this->last($craft, 'turn_compass', null);
        $path = ReturnPath::of($this->last($craft, 'fly_return')->result ?? []);
        $asked = $this->homing->asked($request, $path);

        return $this->show($craft, '41', 'Location/location.html.twig', new LocationView(
            $look,
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $bench->outdoors,
            null !== $port && !$bench->pack && $this->ports->needsPack($craft, $port[0]),
            $bench->tumbles,
            $port,
            $this->receiver->seen($craft),
            $craft->settings,
            $this->staging->of($craft),
            $set,
            array_map(fn (array $names): array => $this->fields->of($craft, $names), self::FIELDS),
            $craft->sensors,
            $this->last($craft, 'find_module'),
            LocationLook::Sky === $look
                ? null
                : Turned::of($turning->result['readings'] ?? null, $earth?->inclinationDeg() ?? 70.0),
            $turning,
            LocationLook::Compass !== $look ? null : Disturbed::of(
                $this->last($craft, 'compass_motors')->result['readings'] ?? null,
                $set,
                $earth,
                $set->number('throttle.hover_output_pct', 50),
            ),
            $earth,
            $path,
            LocationLook::Home === $look ? $this->homing->drawing($craft, $set, $asked, $path) : null,
            LocationLook::Home === $look ? $this->homing->forecast($craft, $set, $asked) : null,
            LocationLook::Home === $look ? $this->homing->hover($craft) : null,
            $this->homing->ah($craft),
            LocationLook::Home === $look ? $this->tracks->logs($craft) : [],
            $this->words,
        ));
    }

    /** Listens once, and goes on with what was seen. */
    #[Route('/craft/{slug}/location/listen', name: 'location_listen', methods: ['POST'])]
    public function listen(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $before = $craft->position;
        $sky = $this->receiver->look($craft);

        return new JsonResponse(['changed' => $before !== $craft->position, 'fixed' => $sky->isFixed()]);
    }

    #[Route('/craft/{slug}/location/find', name: 'location_find', methods: ['POST'])]
    public function find(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $this->port($craft);

        return Answer::of(['job' => $this->jobs->start($craft, 'find_module', 'Find the receiver’s rate', [])->id]);
    }

    /** Tells the module a rate, how often, and whose satellites, and to remember it. */
    #[Route('/craft/{slug}/location/tell', name: 'location_tell', methods: ['POST'])]
    public function tell(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        [$part, $uart] = $this->port($craft);
        $input = Input::of($request);
        $at = $this->last($craft, 'find_module')->result['baud'] ?? null;
        $at = \is_int($at) ? $at : $craft->settings->whole("uart.$uart.baud", 0);
        $baud = $input->whole('baud', 4800, 230400);
        $rate = $input->whole('rate', 1, 10);
        $sky = Constellations::tryFrom($input->text('sky', 10)) ?? Constellations::Both;
        if (!\in_array($baud, PlumbCommand::BAUDS, true)) {
            throw BadRequest::at('baud', "{$part->name} takes ".implode(', ', PlumbCommand::BAUDS).' baud.');
        }
        if (!\in_array($rate, PlumbCommand::RATES, true)) {
            throw BadRequest::at('rate', "{$part->name} takes ".implode(', ', PlumbCommand::RATES).' a second.');
        }
        $told = [[$at, PlumbCommand::sky($sky)], [$at, PlumbCommand::rate($rate)], [$at, PlumbCommand::baud($baud)]];
        $told[] = [$baud, PlumbCommand::keep()];
        foreach ($told as [$speed, $sentence]) {
            if (true !== $this->receiver->tell($craft, $uart, $speed, $sentence)?->done) {
                throw BadRequest::at(
                    'tell',
                    "{$part->name} did not answer at $speed baud: find its rate first, and look at the wire to its RX.",
                );
            }
        }
        $seen = $this->receiver->seen($craft);
        $seen->toldBaud = $baud;
        $seen->toldMoves = $this->benches->of($craft)->state()->powerMoves;
        $seen->remembers = false;
        $this->receiver->keep($craft, $seen);
        $this->jobs->start($craft, 'find_module', 'Find the receiver’s rate', []);

        return Answer::said("{$part->name} was told, and to remember it. Take its power off and on, and see whether it did.");
    }

    #[Route('/craft/{slug}/location/turn', name: 'location_turn', methods: ['POST'])]
    public function turn(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $this->demandCompass($craft);

        return Answer::of(['job' => $this->jobs->start($craft, 'turn_compass', 'Turn it through the poses', [])->id]);
    }

    #[Route('/craft/{slug}/location/motors', name: 'location_motors', methods: ['POST'])]
    public function motors(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $this->demandCompass($craft);
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);

        return Answer::of(['job' => $this->jobs->start($craft, 'compass_motors', 'What the motors do to the compass', [])->id]);
    }

    #[Route('/craft/{slug}/location/return', name: 'location_return', methods: ['POST'])]
    public function fly(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $wrong = ReturnWrong::tryFrom($input->text('wrong', 20)) ?? ReturnWrong::Nothing;
        $job = $this->jobs->start($craft, 'fly_return', 'Fly the way home', [
            'distance' => $input->whole('distance', 0, 2000),
            'height' => $input->whole('height', 2, 120),
            'wind' => $input->whole('wind', 0, 15),
            'from' => $input->whole('from', 0, 360),
            'used' => $input->whole('used', 0, 95),
            'wrong' => $wrong->value,
        ]);

        return Answer::of(['job' => $job->id]);
    }

    /** @return array{\Ortholex\Core\Wiring\Part, string} */
    private function port(Craft $craft): array
    {
        return $this->ports->of($craft, PartRole::Gps)
            ?? throw BadRequest::at('port', 'No position receiver is drawn on 13 Wiring, with a wire to a port.');
    }

    private function demandCompass(Craft $craft): void
    {
        if (!\in_array('compass', $craft->sensors, true)) {
            throw BadRequest::at('compass', 'This board has no compass.');
        }
        if (!$craft->settings->flag('compass.enabled')) {
            throw BadRequest::at('compass', 'The compass is off: switch it on, and commit, first.');
        }
    }

    private function last(Craft $craft, string $kind, ?JobState $state = JobState::Done): ?Job
    {
        $of = ['craft' => $craft, 'kind' => $kind] + (null === $state ? [] : ['state' => $state]);

        return $this->entities->getRepository(Job::class)->findOneBy($of, ['id' => 'DESC']);
    }
}

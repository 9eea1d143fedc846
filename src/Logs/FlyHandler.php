<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Logs\Recorder\Fetched;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Recorder\Unrecorded;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Core\World\Flown;
use Symfony\Component\Yaml\Yaml;

/** Flies a card on the bench with what the board holds, and fetches what its recorder wrote while the link stands. */
final readonly class FlyHandler implements JobHandler
{
    /** Of the whole, the flight takes this share. */
    private const FLYING = 0.45;

    public function __construct(
        private Benches $benches,
        private Catalogue $catalogue,
        private LinkService $links,
        private Fetched $fetched,
        private Words $words,
    ) {
    }

    public function kind(): string
    {
        return 'fly';
    }

    public function route(): string
    {
        return 'logs';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $name = \is_string($job->parameters['card'] ?? null) ? $job->parameters['card'] : '';
        $card = Card::tryFrom($name) ?? throw LogError::of("There is no flight card “{$name}”.");
        $seed = \is_int($job->parameters['seed'] ?? null) ? $job->parameters['seed'] : 1;
        $seconds = \is_int($job->parameters['seconds'] ?? null) ? $job->parameters['seconds'] : 40;
        $bench = $this->benches->of($job->craft);
        $aboard = $bench->aboard() ?? throw LogError::of('The board has no whole firmware, so the craft cannot fly. Write it on sheet 12.');
        $settings = Migration::between($this->catalogue, $aboard->settings, $aboard->version, Version::parse(Catalogue::CURRENT))->settings;
        $heard = $bench->heardInFlight();
        if (Heard::Frames !== $heard) {
            throw LogError::of('It would not take off: '.$this->words->of($heard).'. 21 Radio mends it.');
        }
        if ('' === $settings->text(Action::Arm->setting()) && ArmedBy::Stick !== ArmedBy::in($settings)) {
            throw LogError::of('It would not take off: neither a lever nor the stick arms it. Map “arm” on 23 Switch map.');
        }
        $head = Yaml::dump(
            [
                'flight.card' => $card->value,
                'flight.craft' => $job->craft->name,
                'flight.firmware' => 'Loam '.$aboard->version->toString(),
            ] + $settings->toArray(),
        );
        $flown = $bench->fly(
            $card,
            $seconds,
            $seed,
            $settings,
            $head,
            static function (float $share) use ($progress, $seconds): bool {
                $progress->at(self::FLYING * $share, \sprintf('in the air, %.0f of %d s', $share * $seconds, $seconds));

                return true;
            },
        );
        $ended = FlightEnd::Crashed === $flown->end ? ', ended on the ground' : '';

        return $this->log($job, $progress, $flown, $ended) + ['crashed' => FlightEnd::Crashed === $flown->end];
    }

    /**
     * What its recorder has goes into the book, while the link stands; else it lies there until it is fetched.
     *
     * @return array<string, mixed>
     */
    private function log(Job $job, JobProgress $progress, Flown $flown, string $ended): array
    {
        $said = match (true) {
            null === $flown->recording => "Flown$ended. Nothing was recorded: ".match ($flown->why) {
                Unrecorded::NoMemory => 'this board has no memory for logs. What it shakes with can be measured on the desk, on 53.',
                Unrecorded::Elsewhere => 'the recorder is set to write elsewhere. Stage “recorder.writes_to: board_memory” on 71.',
                Unrecorded::LeverOff => 'a lever turns recording on, and it stood off. Put it up, or take the action off it on 23.',
                default => 'the recorder is full. Fetch what lies there, and erase it.',
            },
            !$this->links->isLinked($job->craft) => "Flown$ended. It lies on the recorder. Plug the cable in, link, and fetch it on 51.",
            default => null,
        };
        if (null !== $said) {
            return [self::HALF => $said];
        }
        $log = $this->fetched->bring($job->craft, (int) $flown->recording, $progress, self::FLYING, $ended);
        $done = ['log' => $log->id, 'code' => $log->code];

        return Unrecorded::Full === $flown->why
            ? $done + [self::HALF => "The recorder was full before $log->code ended. Erase it before the next flight."]
            : $done;
    }
}

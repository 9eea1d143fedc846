<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Link\Ports;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Position\Module\BaudFinder;
use Ortholex\Core\Position\Module\PlumbAnswer;
use Ortholex\Core\Position\Nmea\NmeaReader;
use Ortholex\Core\Wiring\Heard;
use Ortholex\Core\Wiring\PartRole;
use Psr\Clock\ClockInterface;

/** The position receiver of a craft: listened to as its port is set, looked for at every rate, told what to do. */
final readonly class Receiver
{
    /** A second and a bit: what it says once a second is in it. */
    private const LISTEN_S = 1.05;

    public function __construct(
        private Benches $benches,
        private LinkService $links,
        private Jobs $jobs,
        private Ports $ports,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
    ) {
    }

    public function seen(Craft $craft): SeenSky
    {
        return SeenSky::of($craft->position);
    }

    /** Listens as the port is set, and goes on with what was seen; as it was where nobody can listen now. */
    public function look(Craft $craft): SeenSky
    {
        $sky = $this->seen($craft);
        $port = $this->ports->of($craft, PartRole::Gps);
        if (null === $port || !$this->links->isLinked($craft) || $craft->inBootloader || $this->jobs->holdsLink($craft)) {
            return $sky;
        }
        [$part, $uart] = $port;
        $baud = $craft->settings->whole("uart.$uart.baud", 115200);
        try {
            $bytes = $this->benches->client($craft)->listen($uart, $baud, false, self::LISTEN_S);
        } catch (LinkError) {
            return $sky;
        }
        $reader = new NmeaReader();
        $reader->feed($bytes);
        $moves = $this->benches->of($craft)->state()->powerMoves;
        $now = (float) $this->clock->now()->format('U.u');
        $sky->look(Heard::of($bytes, $part->role)->verdict, $reader->reading(), $now, $moves, $baud);
        $this->keep($craft, $sky);

        return $sky;
    }

    /** @throws LinkError */
    public function find(Craft $craft, string $uart, \Closure $tell): BaudFinder
    {
        $client = $this->benches->client($craft);

        return BaudFinder::find(static function (int $baud) use ($client, $uart, $tell): string {
            $tell($baud);

            return $client->listen($uart, $baud, false, self::LISTEN_S);
        });
    }

    /**
     * Tells it something at a rate.
     *
     * @throws LinkError
     */
    public function tell(Craft $craft, string $uart, int $baud, string $sentence): ?PlumbAnswer
    {
        return PlumbAnswer::in((new AidsClient($this->benches->client($craft)))->say($uart, $baud, $sentence));
    }

    public function keep(Craft $craft, SeenSky $sky): void
    {
        $craft->position = $sky->toArray();
        $this->entities->flush();
    }
}

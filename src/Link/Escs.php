<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscSeats;
use Ortholex\Core\Settings\EscTable;
use Symfony\Contracts\EventDispatcher\EventDispatcherInterface;

/** Reads and writes the ESCs of a craft through its board, and keeps what they said with the craft. */
final readonly class Escs
{
    public function __construct(private Benches $benches, private EventDispatcherInterface $events)
    {
    }

    /**
     * Reads who every ESC is and what it holds. One that stays silent is noted, and what it last held stands; the others
     * are read all the same. An ESC that sat elsewhere before is known by its serial number, and what is known of it goes with it.
     */
    public function read(Craft $craft): void
    {
        $escs = [];
        $settings = EscTable::without($craft->settings);
        $craft->escsProblem = '';
        $craft->escsSince = $this->benches->of($craft)->state()->powerMoves;
        $pads = EscTable::pads($craft->settings);
        $moved = [];
        foreach ($pads as $pad => $place) {
            $client = new EscClient($this->benches->client($craft), $pad);
            try {
                $identity = $client->identity();
                $was = self::padOf($craft, $identity->serial) ?? $pad;
                if ($was !== $pad) {
                    $moved[$was] = $pad;
                }
                $escs[$pad] = ['identity' => $identity->toArray()] + $this->known($craft, $was, $pad);
                $held = $identity->inBootloader()
                    ? EscTable::at($pads[$was] ?? $place, $craft->settings)
                    : $client->readSettings();
                $settings = $settings->with(EscTable::prefixed($place, $held));
            } catch (LinkError $e) {
                if ($e->lost || $e->refused) {
                    // It is not this ESC: the board itself says why none can be reached.
                    $craft->escsProblem = $e->getMessage();

                    return;
                }
                $escs[$pad] = ['silent' => true] + array_intersect_key($craft->escs[$pad] ?? [], ['ack' => 1]);
                $settings = $settings->with(EscTable::prefixed($place, EscTable::at($place, $craft->settings)));
            }
        }
        $craft->escs = $escs;
        $craft->settings = $settings;
        if ([] !== $moved) {
            $this->events->dispatch(new EscsMoved($craft, $moved));
        }
        $this->events->dispatch(new EscsRead($craft));
    }

    /** @return array<string, mixed> what stays known of an ESC that sat on another pad, or on this one */
    private function known(Craft $craft, int $was, int $pad): array
    {
        $known = array_intersect_key($craft->escs[$was] ?? [], ['ack' => 1, 'was' => 1]);
        if ($was !== $pad) {
            $known['was'] = EscTable::pads($craft->settings)[$was] ?? '';
        }

        return $known;
    }

    private static function padOf(Craft $craft, string $serial): ?int
    {
        foreach ($craft->escs as $pad => $esc) {
            $identity = $esc['identity'] ?? null;
            if ('' !== $serial && \is_array($identity) && $serial === ($identity['serial'] ?? null)) {
                return $pad;
            }
        }

        return null;
    }

    /**
     * Which ESC sits where, as they were last read.
     *
     * @param SettingSet|null $pads settings whose pad map says what each pad drives; the craft's own when null
     */
    public static function seats(Craft $craft, ?SettingSet $pads = null): EscSeats
    {
        $serials = [];
        foreach (EscTable::pads($pads ?? $craft->settings) as $pad => $place) {
            $identity = $craft->escs[$pad]['identity'] ?? null;
            $serials[$place] = \is_array($identity) ? $identity['serial'] ?? '' : '';
        }

        return EscSeats::of($serials);
    }

    /**
     * Writes values to each ESC, asking three times where it stays silent; what fails leaves the others done.
     *
     * @param SettingSet              $changes by full name
     * @param \Closure(string): void $took    told the place of each that acknowledged all of its own
     *
     * @return list<string> places that did not acknowledge
     *
     * @throws LinkError when the board or the pack is gone
     */
    public function write(Craft $craft, SettingSet $changes, \Closure $took): array
    {
        $byPlace = [];
        foreach ($changes as $name => $value) {
            [$place, $key] = EscTable::parts($name);
            $byPlace[$place][$key] = $value;
        }
        $pads = array_flip(EscTable::pads($craft->settings));
        $failed = [];
        $escs = $craft->escs;
        foreach ($byPlace as $place => $values) {
            $pad =
                $pads[$place] ??
                throw LinkError::refused("write to the $place ESC", 'no output drives that place; set the pad map on sheet 15');
            $client = new EscClient($this->benches->client($craft), $pad);
            try {
                $client->writeSettings(SettingSet::of($values));
                $escs[$pad]['ack'] = ['ok' => true, 'tries' => $client->tries];
                unset($escs[$pad]['was']);
                $took($place);
            } catch (LinkError $e) {
                if ($e->lost) {
                    throw $e;
                }
                $failed[] = $place;
                $escs[$pad]['ack'] = ['ok' => false, 'tries' => EscClient::TRIES];
            }
        }
        $craft->escs = $escs;

        return $failed;
    }

    /**
     * What is known of the ESC at each place; null where it stayed silent.
     *
     * @return array<string, EscIdentity|null> by place
     */
    public static function identities(Craft $craft): array
    {
        $identities = [];
        foreach (EscTable::pads($craft->settings) as $pad => $place) {
            if (isset($craft->escs[$pad])) {
                $data = $craft->escs[$pad]['identity'] ?? null;
                $identities[$place] = \is_array($data) ? EscIdentity::fromArray($data) : null;
            }
        }

        return $identities;
    }

    /** Whether they answered since the pack came on. */
    public function isRead(Craft $craft): bool
    {
        $world = $this->benches->of($craft)->state();

        return $world->pack
            && null !== $craft->escsSince
            && $craft->escsSince === $world->powerMoves
            && '' === $craft->escsProblem
            && [] !== $craft->escs;
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;

/** Reads and writes the ESCs of a craft through its board, and keeps what they said with the craft. */
final readonly class Escs
{
    public function __construct(private Benches $benches)
    {
    }

    /**
     * Reads who every ESC is and what it holds. One that stays silent is noted, and what it last held stands; the others
     * are read all the same.
     */
    public function read(Craft $craft): void
    {
        $escs = [];
        $settings = EscTable::without($craft->settings);
        $craft->escsProblem = '';
        $craft->escsSince = $this->benches->of($craft)->state()->powerMoves;
        foreach (EscTable::pads($craft->settings) as $pad => $place) {
            $ack = array_intersect_key($craft->escs[$pad] ?? [], ['ack' => 1]);
            $client = new EscClient($this->benches->client($craft), $pad);
            try {
                $identity = $client->identity();
                $escs[$pad] = ['identity' => $identity->toArray()] + $ack;
                $held = $identity->inBootloader() ? EscTable::at($place, $craft->settings) : $client->readSettings();
                $settings = $settings->with(EscTable::prefixed($place, $held));
            } catch (LinkError $e) {
                if ($e->lost || $e->refused) {
                    // It is not this ESC: the board itself says why none can be reached.
                    $craft->escsProblem = $e->getMessage();

                    return;
                }
                $escs[$pad] = ['silent' => true] + $ack;
                $settings = $settings->with(EscTable::prefixed($place, EscTable::at($place, $craft->settings)));
            }
        }
        $craft->escs = $escs;
        $craft->settings = $settings;
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

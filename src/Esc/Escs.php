<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Worlds;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;

/** Reads and writes the ESCs of a craft through its board, and keeps what they said with the craft. */
final readonly class Escs
{
    public function __construct(private Worlds $worlds)
    {
    }

    /** Reads who every ESC is and what it holds. One that stays silent is noted, and what it last held stands; the others are read all the same. */
    public function read(Craft $craft): void
    {
        $escs = [];
        $settings = EscTable::without($craft->settings);
        $craft->escsProblem = '';
        $craft->escsSince = $this->worlds->of($craft)->store->peek()->powerMoves;
        foreach (self::pads($craft->settings) as $pad => $place) {
            $ack = array_intersect_key($craft->escs[$pad] ?? [], ['ack' => 1]);
            $client = new EscClient($this->worlds->client($craft), $pad);
            try {
                $identity = $client->identity();
                $escs[$pad] = ['identity' => $identity->toArray()] + $ack;
                $settings += self::prefixed($place, $identity->inBootloader() ? self::held($craft, $place) : $client->readSettings());
            } catch (LinkError $e) {
                if ($e->lost || $e->refused) {
                    // It is not this ESC: the board itself says why none can be reached.
                    $craft->escsProblem = $e->getMessage();

                    return;
                }
                $escs[$pad] = ['silent' => true] + $ack;
                $settings += self::prefixed($place, self::held($craft, $place));
            }
        }
        $craft->escs = $escs;
        $craft->settings = $settings;
    }

    /** @return array<string, float|int|bool|string> by key: what the craft's record has of the ESC at a place */
    public static function held(Craft $craft, string $place): array
    {
        $held = [];
        foreach ($craft->settings as $name => $value) {
            if (EscTable::owns($name) && EscTable::parts($name)[0] === $place) {
                $held[EscTable::parts($name)[1]] = $value;
            }
        }

        return $held;
    }

    /**
     * @param array<string, float|int|bool|string> $values by key
     *
     * @return array<string, float|int|bool|string> by full name
     */
    private static function prefixed(string $place, array $values): array
    {
        return array_combine(array_map(static fn (string $key): string => "esc.$place.$key", array_keys($values)), array_values($values));
    }

    /**
     * Writes values to each ESC, asking three times where it stays silent; what fails leaves the others done.
     *
     * @param array<string, float|int|bool|string> $changes by full name
     *
     * @return list<string> places that did not acknowledge
     *
     * @throws LinkError when the board or the pack is gone
     */
    public function write(Craft $craft, array $changes): array
    {
        $byPlace = [];
        foreach ($changes as $name => $value) {
            [$place, $key] = EscTable::parts($name);
            $byPlace[$place][$key] = $value;
        }
        $pads = array_flip(self::pads($craft->settings));
        $failed = [];
        $escs = $craft->escs;
        foreach ($byPlace as $place => $values) {
            $pad =
                $pads[$place] ??
                throw LinkError::refused("write to the $place ESC", 'no output drives that place; set the pad map on sheet 15');
            $client = new EscClient($this->worlds->client($craft), $pad);
            try {
                $client->writeSettings($values);
                $escs[$pad]['ack'] = ['ok' => true, 'tries' => $client->tries];
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
        foreach (self::pads($craft->settings) as $pad => $place) {
            if (isset($craft->escs[$pad])) {
                $data = $craft->escs[$pad]['identity'] ?? null;
                $identities[$place] = \is_array($data) ? EscIdentity::fromArray($data) : null;
            }
        }

        return $identities;
    }

    /**
     * Output pads that drive a motor.
     *
     * @param array<string, float|int|bool|string> $settings
     *
     * @return array<int, string> place by pad
     */
    public static function pads(array $settings): array
    {
        $pads = [];
        for ($pad = 1; $pad <= 8; ++$pad) {
            $place = $settings["pad.$pad.drives"] ?? 'none';
            if (\in_array($place, EscTable::PLACES, true)) {
                $pads[$pad] = (string) $place;
            }
        }

        return $pads;
    }

    /** Whether they answered since the pack came on. */
    public function isRead(Craft $craft): bool
    {
        $world = $this->worlds->of($craft)->store->peek();

        return $world->pack
            && null !== $craft->escsSince
            && $craft->escsSince === $world->powerMoves
            && '' === $craft->escsProblem
            && [] !== $craft->escs;
    }
}

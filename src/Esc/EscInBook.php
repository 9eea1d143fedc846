<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\EscsFlashed;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 16 and the writing of ESC firmware. */
final readonly class EscInBook implements NextStepSource, PartMark
{
    private const LOOK = 'esc_settings';

    public function __construct(private UrlGeneratorInterface $urls, private EscOrders $orders)
    {
    }

    public function part(): Part
    {
        return Part::Build;
    }

    public function points(Craft $craft): iterable
    {
        $to = $this->urls->generate('escs', ['slug' => $craft->slug]);
        if ([] !== $this->orders->open($craft)) {
            yield new Point('ESC firmware half written', PointState::Blocked, $to);
        }
        yield new Point('ESCs read and alike', PointState::done([] !== $craft->escs && $this->areAlike($craft)), $to);
    }

    public function steps(Craft $craft): iterable
    {
        if (!$craft->isKnown()) {
            return;
        }
        $open = $this->orders->open($craft);
        if ([] !== $open) {
            $said = [];
            foreach ($open as $place => $order) {
                $said[] = str_replace('_', ' ', $place).' '.$order->state->value;
            }
            $key = array_values($open)[0]->key;
            yield new NextStep(
                Urgency::Unfinished,
                'ESC firmware is half written: '.implode(', ', $said).'.',
                $this->urls->generate('esc_firmware', ['slug' => $craft->slug] + ('' === $key ? [] : ['image' => $key])),
                'Write the rest',
            );
        }
        if (\in_array(self::LOOK, $craft->redo, true)) {
            yield new NextStep(
                Urgency::Again,
                'ESCs were flashed: see which of their settings started from defaults, and show the motors again.',
                $this->urls->generate('escs', ['slug' => $craft->slug]),
                'Look at 16',
            );
        }
        $differing = $this->differing($craft);
        if ([] !== $differing) {
            yield new NextStep(
                Urgency::Uneven,
                'The ESC at '.str_replace('_', ' ', implode(' and ', $differing)).' runs other firmware than the others.',
                $this->urls->generate('esc_firmware', ['slug' => $craft->slug]),
                'Bring it level',
            );
        }
    }

    #[AsEventListener]
    public function onFlashed(EscsFlashed $event): void
    {
        $event->craft->mustRedo(self::LOOK);
    }

    /** In firmware and in all that is set but the direction. */
    private function areAlike(Craft $craft): bool
    {
        $rows = [];
        foreach (EscTable::only($craft->settings) as $name => $value) {
            [$place, $key] = EscTable::parts($name);
            if (EscRow::OWN !== $key) {
                $rows[$key][$place] = $value;
            }
        }
        foreach ($rows as $values) {
            if ([] !== OddOnes::of($values)->odd) {
                return false;
            }
        }

        return [] === $this->differing($craft);
    }

    /** @return list<string> places whose ESC runs other firmware than most */
    private function differing(Craft $craft): array
    {
        $firmware = array_map(static fn (?EscIdentity $e): string => $e?->firmwareInWords() ?? 'silent', Escs::identities($craft));
        $odd = OddOnes::of($firmware);

        return null === $odd->common ? [] : $odd->odd;
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Sticks\Listening;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 21: a radio whose sticks were never shown. */
final readonly class RadioInBook implements NextStepSource, PartMark
{
    public function __construct(private Listening $listening, private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Command;
    }

    /** Done when the sticks and the levers were shown. */
    public function points(Craft $craft): iterable
    {
        $to = $this->urls->generate('radio', ['slug' => $craft->slug]);
        $shown = $this->listening->evidence($craft);
        yield new Point('sticks shown', PointState::done([] !== $shown->spans && null === $shown->channelOrder()->clash), $to);
        yield new Point('levers shown', PointState::done([] !== $shown->levers), $to);
    }

    public function steps(Craft $craft): iterable
    {
        if (!$craft->isKnown() || !$craft->settings->has('channel.roll.number')) {
            return;
        }
        if ([] === $this->listening->evidence($craft)->spans && 'none' !== $craft->settings->text('receiver.protocol')) {
            $to = $this->urls->generate('radio', ['slug' => $craft->slug]);
            yield new NextStep(Urgency::Uneven, 'Which stick is which, and how far each goes, is not shown yet.', $to, 'Show the sticks');
        }
    }
}

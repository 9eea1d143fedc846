<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\RoadMap\RoadMaps;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Tray\TrayEffect;
use Ortholex\App\Settings\Tray\TrayEffects;
use Ortholex\App\Settings\Tray\TrayWarning;
use Ortholex\App\Settings\Tray\TrayWarnings;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\RoadMap\TuneStep;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\SettingGroup;
use Ortholex\Core\Step\StepOutcome;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 61: steps that overshoot, and what staged gains would make of them. */
#[AsTaggedItem(priority: 10)]
final readonly class GainsInBook implements NextStepSource, PartMark, TrayEffects, TrayWarnings
{
    /** By so much more than the model of the flight a peak must grow to be asked for: what only lessens an overshoot is no news. */
    private const WORSE = 0.05;

    public function __construct(
        private LogBook $book,
        private RoadMaps $roads,
        private Words $words,
        private Predictions $predictions,
        private Staging $staging,
        private Catalogue $catalogue,
        private UrlGeneratorInterface $urls,
    ) {
    }

    public function part(): Part
    {
        return Part::Tune;
    }

    /** How many gains and filters are staged. */
    public function points(Craft $craft): iterable
    {
        $tune = 0;
        foreach ($this->staging->of($craft)->names() as $name) {
            $known = $this->catalogue->has($name, $craft->version());
            $group = $known ? $this->catalogue->get($name, $craft->version())->group : null;
            $tune += \in_array($group, [SettingGroup::Gains, SettingGroup::Filters], true) ? 1 : 0;
        }

        if ($tune > 0) {
            yield new Point('gains and filters staged', PointState::Done, $this->urls->generate('gains', ['slug' => $craft->slug]), $tune);
        }
    }

    /** The road of the tune, in one sentence with its reason. */
    public function steps(Craft $craft): iterable
    {
        $road = 0 === $this->book->count($craft) ? null : $this->roads->of($craft);
        if (null === $road) {
            return;
        }
        $text = $this->words->capital($road->why).'.';
        $here = ['slug' => $craft->slug];
        yield match (true) {
            TuneStep::Done === $road->at => new NextStep(Urgency::Idle, $text, $this->urls->generate('gains', $here), 'See it'),
            TuneStep::FeedForward === $road->at => new NextStep(
                Urgency::Better,
                $text,
                $this->urls->generate('series', $here),
                'Plan the series',
            ),
            [] === $road->stage && null !== $road->card => new NextStep(
                Urgency::Better,
                $text,
                $this->urls->generate('logs', $here),
                'Fly it',
            ),
            default => new NextStep(Urgency::Better, $text, $this->urls->generate('gains', $here), 'Tune it'),
        };
    }

    public function effects(Craft $craft, SettingSet $after): iterable
    {
        [$log, $told] = $this->predictions->ofStaged($craft);
        foreach ($told as $axis => $one) {
            if ($one['stable'] && null !== $one['measured_peak']) {
                yield new TrayEffect("peak of {$axis}'s step, by $log", '', $one['measured_peak'], $one['predicted_peak'], 2, always: true);
            }
        }
    }

    public function warnings(Craft $craft): iterable
    {
        [$log, $told] = $this->predictions->ofStaged($craft);
        foreach ($told as $axis => $one) {
            // Where even the flight that was flown would not fly by the model, it knows too little to warn by.
            if (!$one['modelled_stable']) {
                continue;
            }
            $peak = $one['predicted_peak'];
            if (!$one['stable']) {
                yield new TrayWarning("By $log, $axis would oscillate with what is staged.");
            } elseif (StepOutcome::Overshoots === StepOutcome::ofPeak($peak) && $peak > self::WORSE + $one['modelled_peak']) {
                yield new TrayWarning(\sprintf('By %s, %s would ring: its step would peak at %.2f.', $log, $axis, $peak));
            }
        }
    }
}

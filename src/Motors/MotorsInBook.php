<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Link\EscsFlashed;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Tray\TrayEffect;
use Ortholex\App\Settings\Tray\TrayEffects;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Proof\Proved;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 15: end points to be taught again, and the loop load of what is staged. */
#[AsTaggedItem(priority: 20)]
final readonly class MotorsInBook implements NextStepSource, PartMark, TrayEffects
{
    private const TEACH = 'esc_calibration';

    public function __construct(
        private CurrentNames $names,
        private Airframes $frames,
        private Proofs $proofs,
        private UrlGeneratorInterface $urls,
    ) {
    }

    public function part(): Part
    {
        return Part::Build;
    }

    public function points(Craft $craft): iterable
    {
        $to = $this->urls->generate('motors', ['slug' => $craft->slug]);
        yield new Point('each motor shown', PointState::done($this->proofs->hold($craft, Proved::SpinCheck)), $to);
        yield new Point('directions shown', PointState::done($this->proofs->hold($craft, Proved::Directions)), $to);
    }

    public function steps(Craft $craft): iterable
    {
        if (
            $craft->isKnown()
            && \in_array(self::TEACH, $craft->redo, true)
            && !MotorSignal::in($this->names->of($craft, $craft->settings))->isDigital()
        ) {
            yield new NextStep(
                Urgency::Again,
                'ESCs were flashed: their end points must be taught again.',
                $this->urls->generate('motors', ['slug' => $craft->slug, 'do' => MotorTask::Teach->value]),
                'Teach them',
            );
        }
    }

    public function effects(Craft $craft, SettingSet $after): iterable
    {
        $motors = \count(($this->frames->staged($craft) ?? $this->frames->of($craft))->motors);
        $load = fn (SettingSet $settings): float => LoopLoad::of(
            $this->names->of($craft, $settings),
            $motors,
            $craft->processor ?? 'F4',
            $craft->leftOut,
        )->percent;
        yield new TrayEffect('loop load', '%', $load($craft->settings), $load($after), 0);
    }

    /** What an ESC learnt of its end points does not survive new firmware. */
    #[AsEventListener]
    public function onFlashed(EscsFlashed $event): void
    {
        $event->craft->mustRedo(self::TEACH);
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Toy;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Settings\Tray\TrayEffect;
use Ortholex\App\Settings\Tray\TrayEffects;
use Ortholex\Core\Craft\SettingSet;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

#[AsTaggedItem(priority: 20)]
final readonly class ToyInBook implements LiveSource, NextStepSource, PartMark, SearchSource, TrayEffects
{
    public function __construct(private UrlGeneratorInterface $urls)
    {
    }

    public function key(): string
    {
        return 'toy';
    }

    public function facts(Craft $craft): string
    {
        return "the toy of $craft->name";
    }

    public function steps(Craft $craft): iterable
    {
        yield new NextStep(
            Urgency::Newer,
            'The toy wants to be played with.',
            $this->urls->generate('toy', ['slug' => $craft->slug]),
            'Play',
        );
    }

    public function part(): Part
    {
        return Part::Command;
    }

    public function points(Craft $craft): iterable
    {
        yield new Point('games played', PointState::Done, $this->urls->generate('toy', ['slug' => $craft->slug]), 7);
    }

    public function hits(Craft $craft): iterable
    {
        yield new SearchHit(
            HitKind::Action,
            'Play with the toy',
            'nothing comes of it',
            $this->urls->generate('toy', ['slug' => $craft->slug]),
        );
    }

    public function effects(Craft $craft, SettingSet $after): iterable
    {
        yield new TrayEffect('joy', 'grins', 1.0, 2.0, 0);
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Chain;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Arming\OwnBar;
use Ortholex\Core\Proof\Proved;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 31: what a repair opened again, and what was proved and holds no more. */
final readonly class ArmingInBook implements NextStepSource, PartMark
{
    public function __construct(private Proofs $proofs, private Staging $staging, private Words $words, private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Guard;
    }

    /** What is to be proved still. */
    public function points(Craft $craft): iterable
    {
        if (!$craft->isKnown()) {
            return;
        }
        $to = $this->urls->generate('interlocks', ['slug' => $craft->slug]);
        $wanting = Chain::wanting($craft->settings, $this->staging->preview($craft), $this->proofs->of($craft));
        foreach ($wanting as $open) {
            if (null !== $open->proof) {
                yield new Point($this->words->name($open->proof->called()), PointState::Open, $to);
            }
        }
        if ([] === $wanting) {
            yield new Point('all that is to be proved', PointState::Done, $to);
        }
    }

    public function steps(Craft $craft): iterable
    {
        if (!$craft->isKnown()) {
            return;
        }
        $again = [];
        foreach (Chain::wanting($craft->settings, $this->staging->preview($craft), $this->proofs->of($craft)) as $open) {
            if (self::isAgain($open)) {
                $again[] = null === $open->proof ? '' : $this->words->name($open->proof->called());
            }
        }
        if ([] !== $again) {
            $to = $this->urls->generate('interlocks', ['slug' => $craft->slug]);
            yield new NextStep(
                Urgency::Again,
                'To be checked again before it flies: '.implode(', ', array_filter($again)).'.',
                $to,
                'See what is open',
            );
        }
    }

    private static function isAgain(Open $open): bool
    {
        return Proved::Rehearsal !== $open->proof
            && (true === $open->own?->is(OwnBar::Replaced) || true === $open->own?->is(OwnBar::Lapsed));
    }
}

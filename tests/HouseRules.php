<?php

declare(strict_types=1);

namespace Ortholex\Tests;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The arrows core ← bench ← src, and the port between them; checked by static analysis. */
final class HouseRules
{
    public function testCoreKnowsNothingButItself(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Ortholex\Core'))
            ->shouldNot()
            ->dependOn()
            ->classes(
                Selector::inNamespace('Ortholex\Bench'),
                Selector::inNamespace('Ortholex\App'),
                Selector::inNamespace('Ortholex\Demo'),
                Selector::inNamespace('Symfony'),
                Selector::inNamespace('Doctrine'),
                Selector::inNamespace('Twig'),
            )
            ->because('the rules of the job stand on plain PHP alone');
    }

    public function testTheWorldOutsideIsMetThroughItsPort(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Ortholex\App'))
            ->excluding(Selector::inNamespace('Ortholex\App\SetUp'))
            ->shouldNot()
            ->dependOn()
            ->classes(Selector::inNamespace('Ortholex\Bench'), Selector::inNamespace('Ortholex\Demo'))
            ->because('with hardware, something else stands behind the port in core; only the making of the demo knows the stand-ins');
    }

    public function testBenchUsesCoreOnly(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Ortholex\Bench'))
            ->shouldNot()
            ->dependOn()
            ->classes(
                Selector::inNamespace('Ortholex\App'),
                Selector::inNamespace('Ortholex\Demo'),
                Selector::inNamespace('Symfony'),
                Selector::inNamespace('Doctrine'),
                Selector::inNamespace('Twig'),
            )
            ->because('the stand-ins for the world know the rules, not the application');
    }
}

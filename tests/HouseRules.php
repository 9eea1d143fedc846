<?php

declare(strict_types=1);

namespace Ortholex\Tests;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The arrows core ← bench ← src; checked by static analysis. */
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

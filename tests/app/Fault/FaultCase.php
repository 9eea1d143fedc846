<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Doctrine\Persistence\ManagerRegistry;
use Ortholex\App\Storage\DiskTrouble;
use Ortholex\Tests\app\AppCase;

/** Work on a craft that is struck in its middle, and everything as it was before, to strike it again elsewhere. */
abstract class FaultCase extends AppCase
{
    /** What is told five times a second is written as often as the time asks for: the last writes of one run may not come in the next. */
    protected const AS_OFTEN = 'as often as these writes can be met at any pace';

    /** Some thousand boots and answers are waited for: each three times as fast as in other tests. */
    protected function setUp(): void
    {
        $_SERVER['ORTHOLEX_PACE'] = $_ENV['ORTHOLEX_PACE'] = '0.003';
        parent::setUp();
    }

    protected function tearDown(): void
    {
        // What failed in one test is not the next one's.
        Plan::none();
        FullDisk::fillAt(0);
        parent::tearDown();
        $_SERVER['ORTHOLEX_PACE'] = $_ENV['ORTHOLEX_PACE'] = '0.01';
    }

    protected function powered(string $slug): void
    {
        foreach (['props' => '0', 'cable' => '1'] as $thing => $to) {
            $this->world($slug)->move($thing, $to);
        }
        usleep(20_000);
        $this->post("/craft/$slug/link");
        $this->world($slug)->move('pack', '1');
        usleep(20_000);
        $this->post("/craft/$slug/escs/read");
        $this->entities()->clear();
    }

    /** @return iterable<array{int, Blow, bool}> at which message, which blow, whether it falls after the message was met */
    protected static function strokes(int $messages): iterable
    {
        for ($at = 1; $at <= $messages; ++$at) {
            foreach (Blow::cases() as $blow) {
                yield [$at, $blow, false];
                yield [$at, $blow, true];
            }
        }
    }

    /** There is room again, and the next process has its own book open. */
    protected function makeRoom(): void
    {
        Plan::none();
        FullDisk::fillAt(0);
        $doctrine = self::getContainer()->get('doctrine');
        self::assertInstanceOf(ManagerRegistry::class, $doctrine);
        if (!$this->entities()->isOpen()) {
            $doctrine->resetManager();
        }
        $this->entities()->clear();
    }

    /** Whether this is what a full disk brings about, and is said so. */
    protected static function isFull(\Throwable $e): bool
    {
        $said = DiskTrouble::behind($e, self::data())->words ?? '';

        return str_contains($said, 'disk is full');
    }

    protected function again(string $slug): void
    {
        $world = $this->world($slug);
        $state = $world->store->peek();
        if (!$state->cable) {
            $world->move('cable', '1');
        }
        usleep(1_500);
        $this->post("/craft/$slug/link");
        if (!$state->pack) {
            $world->move('pack', '1');
            $this->post("/craft/$slug/escs/read");
        } elseif (!$state->cable) {
            // ESCs listen to a board that was linked when they woke.
            $world->move('pack', '0');
            $world->move('pack', '1');
            $this->post("/craft/$slug/link");
            $this->post("/craft/$slug/escs/read");
        }
        $this->entities()->clear();
    }

    /** Everything as it is now, to come back to. */
    protected function mark(string $slug): string
    {
        $this->entities()->clear();
        $this->entities()->getConnection()->executeStatement('SAVEPOINT before_the_blow');

        copy(self::data()."/bench/$slug/flash.bin", self::data().'/flash-before.bin');

        return (string) file_get_contents(self::data()."/bench/$slug/world.json");
    }

    protected function backTo(string $world, string $slug): void
    {
        $this->makeRoom();
        $this->entities()->getConnection()->executeStatement('ROLLBACK TO before_the_blow');
        $this->entities()->getConnection()->executeStatement('RELEASE before_the_blow');
        file_put_contents(self::data()."/bench/$slug/world.json", $world);
        copy(self::data().'/flash-before.bin', self::data()."/bench/$slug/flash.bin");
    }

    /**
     * @template T of object
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    protected function service(string $class): object
    {
        $service = self::getContainer()->get($class);
        self::assertInstanceOf($class, $service);

        return $service;
    }
}

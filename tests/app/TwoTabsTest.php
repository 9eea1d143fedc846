<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\EventDispatcher\EventDispatcherInterface;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Lock\LockFactory;
use Symfony\Component\Lock\Store\FlockStore;

/** Several tabs on one craft: what is committed is what the tray showed where it was pressed, and nothing is lost unsaid. */
final class TwoTabsTest extends AppCase
{
    private const NAMES = [
        'gain.roll.p' => [24, 45],
        'gain.pitch.d' => [2, 5],
        'gain.yaw.i' => [60, 120],
        'd_path.stage.1.cutoff_hz' => [80, 140],
    ];

    public function testACommitWritesWhatItsTrayShowed(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 26.5], 'seen' => 0, 'tab' => 'a']);
        $seenByA = $this->revision();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 27.5], 'seen' => $seenByA, 'tab' => 'b']);
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'by A', 'seen' => $seenByA, 'tab' => 'a'], 409);
        self::assertStringContainsString('is now staged as 27.5', (string) json_encode($refused));
        self::assertSame(33.0, $this->world()->store->peek()->kept['gain.roll.p'], 'nothing was written');
        self::assertSame(['gain.roll.p' => 27.5], $this->staged($this->craft()));
        $this->post('/craft/curlew/commit', ['reason' => 'by A, who looked', 'seen' => $this->revision(), 'tab' => 'a']);
        self::assertSame(27.5, $this->world()->store->peek()->kept['gain.roll.p']);
    }

    /** A page that was put together while something changed knows of the moment before: it asks, finds it otherwise, and is drawn anew. */
    public function testAPageKnowsTheMomentFromBeforeItWasPutTogether(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30]]);
        $events = self::getContainer()->get('event_dispatcher');
        self::assertInstanceOf(EventDispatcherInterface::class, $events);
        $meanwhile = fn () => self::getContainer()->get(Staging::class)->discard($this->craft());
        $events->addListener(KernelEvents::CONTROLLER_ARGUMENTS, $meanwhile);
        $this->browser->request('GET', '/craft/curlew/73');
        $events->removeListener(KernelEvents::CONTROLLER_ARGUMENTS, $meanwhile);
        $live = json_decode($this->browser->getCrawler()->filter('body')->attr('data-live') ?? '', true);
        self::assertIsArray($live);
        self::assertNotSame($live['staged'], $this->json('/craft/curlew/live.json')['staged']);
        self::assertSame([], $this->staged($this->craft()));
    }

    public function testAnEditOfWhatAnotherTabHasChangedIsRefusedOnce(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30], 'seen' => 0, 'tab' => 'a']);
        $refused = $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31], 'seen' => 0, 'tab' => 'b'], 409);
        self::assertStringContainsString('P, roll is now staged as 30', (string) json_encode($refused, \JSON_UNESCAPED_UNICODE));
        self::assertSame(['gain.roll.p' => 30.0], $this->staged($this->craft()));
        // The same value twice is no quarrel, nor is another setting, nor a second thought of one's own.
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30], 'seen' => 0, 'tab' => 'b']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.i' => 99], 'seen' => 0, 'tab' => 'b']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.i' => 98], 'seen' => 0, 'tab' => 'b']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31], 'seen' => $this->revision(), 'tab' => 'b']);
        self::assertEquals(['gain.roll.p' => 31.0, 'gain.yaw.i' => 98.0], $this->staged($this->craft()));
    }

    public function testADiscardOfWhatWasNotSeenIsRefused(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30], 'tab' => 'a']);
        $seen = $this->revision();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 32, 'gain.yaw.i' => 99], 'tab' => 'a']);
        $this->post('/craft/curlew/discard', ['name' => 'gain.roll.p', 'seen' => $seen, 'tab' => 'b'], 409);
        $this->post('/craft/curlew/discard', ['seen' => $seen, 'tab' => 'b'], 409);
        self::assertCount(2, $this->staged($this->craft()));
        $this->post('/craft/curlew/discard', ['seen' => $this->revision(), 'tab' => 'b']);
        self::assertSame([], $this->staged($this->craft()));
    }

    /** Another process, of this server or of another on the same data, writes to the craft at this moment. */
    public function testOneCommitAtATimeAcrossProcesses(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30]]);
        $other = (new LockFactory(new FlockStore(self::data().'/locks')))->createLock('craft-curlew');
        self::assertTrue($other->acquire());
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'at once'], 409);
        self::assertStringContainsString('is under way', (string) json_encode($refused));
        self::assertCount(1, $this->staged($this->craft()));
        self::assertSame(0, $this->craft()->revision);
        $other->release();
        $this->post('/craft/curlew/commit', ['reason' => 'after it']);
        self::assertSame(1, $this->craft()->revision);
    }

    public function testACommitWithoutATrayIsRefused(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30]]);
        self::assertSame('seen', $this->post('/craft/curlew/commit', ['reason' => 'blind', 'seen' => ''], 422)['field']);
        self::assertSame('seen', $this->post('/craft/curlew/commit', ['reason' => 'blind', 'seen' => 'yesterday'], 422)['field']);
        self::assertCount(1, $this->staged($this->craft()));
    }

    /** What comes in while a Commit runs is not what it wrote. */
    public function testWhatIsStagedMeanwhileStaysStaged(): void
    {
        $this->link();
        $staging = self::getContainer()->get(Staging::class);
        $staging->stage($this->craft(), ['gain.roll.p' => 30, 'gain.yaw.i' => 99]);
        $written = $staging->of($this->craft());
        $staging->stage($this->craft(), ['gain.roll.p' => 31, 'gain.pitch.d' => 3.5]);
        $staging->written($this->craft(), $written);
        self::assertEquals(['gain.roll.p' => 31.0, 'gain.pitch.d' => 3.5], $this->staged($this->craft()));
    }

    public function testNothingStagedIsNothingRefused(): void
    {
        $this->link();
        $staging = self::getContainer()->get(Staging::class);
        self::assertSame(0, $staging->revision($this->craft()));
        try {
            $staging->stage($this->craft(), ['gain.roll.p' => 900]);
            self::fail('it was staged');
        } catch (SettingError $e) {
            self::assertSame('gain.roll.p', $e->setting);
        }
        self::assertSame(0, $staging->revision($this->craft()), 'what was refused is no step');
        $staging->stage($this->craft(), ['gain.roll.p' => 33.0]);
        self::assertSame(0, $staging->revision($this->craft()), 'nor is what it is already');
    }

    /** @return iterable<string, array{int, int}> tabs, seed */
    public static function crowds(): iterable
    {
        yield 'two tabs' => [2, 7];
        yield 'four tabs' => [4, 19];
    }

    /**
     * Tabs stage, commit, discard and go back at random, each knowing only what its page showed when it was last drawn. The craft
     * holds what the last Commit's tray showed; what a tab was told to be done is done, what it was refused is not.
     */
    #[DataProvider('crowds'), Group('slow')]
    public function testManyTabsAtRandom(int $tabs, int $seed): void
    {
        $this->link();
        $dice = new Lcg($seed);
        // What each tab's page shows: the number of the step, and what is staged.
        $shown = array_fill(0, $tabs, [0, []]);
        $craftHolds = array_intersect_key($this->world()->store->peek()->kept, self::NAMES);
        $model = [];
        $counts = ['staged' => 0, 'committed' => 0, 'refused' => 0, 'discarded' => 0, 'back' => 0];
        for ($step = 0; $step < 500; ++$step) {
            $tab = $dice->whole(0, $tabs - 1);
            $act = $dice->whole(0, 9);
            $from = ['seen' => $shown[$tab][0], 'tab' => "tab$tab"];
            if ($act <= 1) {
                $shown[$tab] = [$this->revision(), $this->staged($this->craft())];
                continue;
            }
            if ($act <= 6) {
                $name = array_keys(self::NAMES)[$dice->whole(0, \count(self::NAMES) - 1)];
                $value = (float) $dice->whole(...self::NAMES[$name]);
                if ($this->accepted('stage', ['values' => [$name => $value]] + $from)) {
                    if (Setting::same($value, $craftHolds[$name])) {
                        unset($model[$name]);
                    } else {
                        $model[$name] = $value;
                    }
                    ++$counts['staged'];
                } else {
                    ++$counts['refused'];
                }
            } elseif ($act <= 7) {
                $was = $shown[$tab][1];
                if ($this->accepted('commit', ['reason' => "step $step"] + $from)) {
                    ksort($was);
                    $seen = $model;
                    ksort($seen);
                    self::assertEquals($was, $seen, 'what its tray showed is what was staged');
                    $craftHolds = array_replace($craftHolds, $was);
                    $model = [];
                    ++$counts['committed'];
                } else {
                    ++$counts['refused'];
                }
            } elseif ($act <= 8) {
                if ($this->accepted('discard', $from)) {
                    $model = [];
                    ++$counts['discarded'];
                } else {
                    ++$counts['refused'];
                }
            } else {
                $entry = $this->entities()
                    ->getRepository(ChangeEntry::class)
                    ->findOneBy(['craft' => $this->craft()], ['id' => 'DESC']);
                if (null !== $entry && $this->accepted("changes/$entry->id/back", $from)) {
                    foreach ($entry->items as $item) {
                        if (Setting::same((float) $item['from'], (float) $craftHolds[$item['name']])) {
                            unset($model[$item['name']]);
                        } else {
                            $model[$item['name']] = $item['from'];
                        }
                    }
                    ++$counts['back'];
                }
            }
            self::assertEquals($model, $this->staged($this->craft()), "step $step");
            $kept = $this->world()->store->peek()->kept;
            foreach ($craftHolds as $name => $value) {
                self::assertTrue(Setting::same($value, $kept[$name]), "step $step: $name");
            }
        }
        foreach ($counts as $what => $count) {
            self::assertGreaterThan(4, $count, "$what often enough to mean something");
        }
    }

    /** @param array<string, mixed> $body */
    private function accepted(string $action, array $body): bool
    {
        $this->browser->request('POST', "/craft/curlew/$action", content: (string) json_encode($body));
        $status = $this->browser->getResponse()->getStatusCode();
        self::assertContains($status, [200, 409, 422], (string) $this->browser->getResponse()->getContent());
        $this->entities()->clear();

        return 200 === $status;
    }

    private function revision(): int
    {
        return self::getContainer()->get(Staging::class)->revision($this->craft());
    }
}

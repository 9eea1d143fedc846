<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use DAMA\DoctrineTestBundle\Doctrine\DBAL\StaticDriver;
use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobRunner;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\World\World;
use Ortholex\Core\Fact\Fact;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\Console\Input\ArrayInput;
use Symfony\Component\Console\Output\NullOutput;
use Symfony\Component\Filesystem\Filesystem;

/** The whole application in process, on data of its own; each test starts from the freshly made demo. */
abstract class AppCase extends WebTestCase
{
    protected KernelBrowser $browser;

    protected function setUp(): void
    {
        $files = new Filesystem();
        $data = self::data();
        $made = "$data-made";
        if (!is_dir($made) || getmypid() !== (int) @file_get_contents("$made/by")) {
            $files->remove([$made, $data]);
            $this->make();
            $files->mkdir($made);
            $files->rename("$data/shelf", "$made/shelf");
            $files->mirror("$data/bench", "$made/bench");
            file_put_contents("$made/by", (string) getmypid());
            symlink("$made/shelf", "$data/shelf");
        }
        // Each test's writes to the database are rolled back; what lies on the bench is laid anew.
        foreach (['bench', 'uploads', 'images', 'recorder', 'log'] as $folder) {
            $files->remove("$data/$folder");
        }
        $files->mirror("$made/bench", "$data/bench");
        $this->browser = self::createClient(
            [],
            [
                'HTTP_HOST' => '127.0.0.1:8787',
                'HTTP_ORIGIN' => 'http://127.0.0.1:8787',
                'CONTENT_TYPE' => 'application/json',
                'HTTP_ACCEPT' => 'text/html',
            ],
        );
        $this->browser->disableReboot();
    }

    /** The demo without its flights, outside of any test's transaction. */
    private function make(): void
    {
        StaticDriver::setKeepStaticConnections(false);
        $app = new Application(self::bootKernel());
        $app->setAutoExit(false);
        self::assertSame(0, $app->run(new ArrayInput(['command' => 'app:set-up', '--no-flights' => true]), new NullOutput()));
        self::ensureKernelShutdown();
        StaticDriver::setKeepStaticConnections(true);
        StaticDriver::beginTransaction();
    }

    protected static function data(): string
    {
        return (string) getenv('ORTHOLEX_DATA');
    }

    protected function entities(): EntityManagerInterface
    {
        return self::getContainer()->get(EntityManagerInterface::class);
    }

    protected function craft(string $slug = 'curlew'): Craft
    {
        return $this->entities()
            ->getRepository(Craft::class)
            ->findOneBy(['slug' => $slug]) ?? throw new \LogicException("no $slug");
    }

    protected function world(string $slug = 'curlew'): World
    {
        return self::getContainer()->get(SimulatedBenches::class)->world($slug) ?? throw new \LogicException("no bench of $slug");
    }

    /** The page or answer says this, in whatever words it has for it. */
    protected static function assertSays(Fact|\BackedEnum $said, string $answer, string $message = ''): void
    {
        $words = self::getContainer()->get(Words::class)->of($said);
        self::assertTrue(self::contains($answer, $words), "It does not say “{$words}”. {$message}");
    }

    protected static function assertDoesNotSay(Fact|\BackedEnum $said, string $answer): void
    {
        $words = self::getContainer()->get(Words::class)->of($said);
        self::assertFalse(self::contains($answer, $words), "It says “{$words}”.");
    }

    private static function contains(string $answer, string $words): bool
    {
        return false !== mb_stripos(html_entity_decode($answer, \ENT_QUOTES), $words);
    }

    /**
     * @param array<string, mixed> $body
     *
     * @return array<mixed>
     */
    protected function post(string $url, array $body = [], int $status = 200): array
    {
        if (1 === preg_match('~^/craft/([a-z0-9-]+)/commit$~', $url, $m)) {
            // As a tray does that was drawn just now.
            $body += ['seen' => self::getContainer()->get(Staging::class)->revision($this->craft($m[1]))];
        }
        $this->browser->request('POST', $url, content: (string) json_encode($body));
        self::assertSame($status, $this->browser->getResponse()->getStatusCode(), (string) $this->browser->getResponse()->getContent());
        $data = json_decode((string) $this->browser->getResponse()->getContent(), true);

        return \is_array($data) ? $data : [];
    }

    /** @return array<mixed> */
    protected function json(string $url): array
    {
        $this->browser->request('GET', $url, server: ['HTTP_ACCEPT' => 'application/json']);
        self::assertResponseIsSuccessful();
        $data = json_decode((string) $this->browser->getResponse()->getContent(), true);

        return \is_array($data) ? $data : [];
    }

    /** A page as it is read: where its lines break says nothing. */
    protected function page(string $url, int $status = 200): string
    {
        $this->browser->request('GET', $url);
        $html = (string) $this->browser->getResponse()->getContent();
        self::assertSame($status, $this->browser->getResponse()->getStatusCode(), substr($html, 0, 2000));

        return (string) preg_replace('~\s+~', ' ', $html);
    }

    protected function link(string $slug = 'curlew'): void
    {
        $this->post("/craft/$slug/bench", ['thing' => 'cable', 'to' => '1']);
        usleep(20_000);
        $this->post("/craft/$slug/link");
    }

    /**
     * Runs an order in this process, as its own process would.
     *
     * @param array<string, mixed> $parameters
     */
    protected function job(string $kind, array $parameters, string $slug = 'curlew'): Job
    {
        $job = new Job($this->craft($slug), $kind, $kind, $parameters, microtime(true));
        $this->entities()->persist($job);
        $this->entities()->flush();
        self::getContainer()->get(JobRunner::class)->run((int) $job->id);
        $this->entities()->refresh($job);

        return $job;
    }

    protected function upload(string $content): string
    {
        $begun = $this->post('/uploads', ['bytes' => \strlen($content)]);
        self::assertIsString($begun['upload']);
        foreach (str_split($content, 4_194_304) as $i => $piece) {
            $this->browser->request('PUT', "/uploads/{$begun['upload']}?offset=".$i * 4_194_304, content: $piece);
            self::assertResponseIsSuccessful();
        }

        return $begun['upload'];
    }

    protected function ready(): void
    {
        foreach (['props', 'outdoors', 'transmitter', 'pack'] as $thing) {
            $this->world()->move($thing, '1');
        }
    }

    /** A flight of Curlew on the bench, brought in. */
    protected function flown(string $card = 'mixed_sticks', int $seed = 5, int $seconds = 20): Log
    {
        $this->link();
        $this->ready();
        $job = $this->job('fly', ['card' => $card, 'seed' => $seed, 'seconds' => $seconds]);
        self::assertSame(JobState::Done, $job->state, $job->message);

        return $this->entities()
            ->getRepository(Log::class)
            ->findOneBy([], ['id' => 'DESC']) ?? throw new \LogicException('no log');
    }

    /** Path of a file with this content. */
    protected function written(string $content): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, $content);

        return $path;
    }

    /** @return array<string, float|int|bool|string> what is staged for a craft, by name */
    protected function staged(Craft $craft): array
    {
        return self::getContainer()->get(Staging::class)->of($craft)->toArray();
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\Tests\app\AppCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** A data folder that nobody may write to: every page is read as ever, and every write says which folder, and what to do. */
final class ReadOnlyFolderTest extends AppCase
{
    private string $folder = '';

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = self::data().'-read-only';
        $files = new Filesystem();
        $this->open();
        $files->remove($this->folder);
        $files->mkdir($this->folder);
        // As another connection sees it: what this test's own has begun is not in it.
        $book = new \PDO('sqlite:'.self::data().'/ortholex.sqlite');
        $book->exec("VACUUM INTO '$this->folder/ortholex.sqlite'");
        foreach (['bench', 'shelf', 'shelf-escs', 'shelf-chips'] as $part) {
            $files->mirror(self::data()."/$part", "$this->folder/$part", null, ['copy_on_windows' => true]);
        }
        (new Process(['chmod', '-R', 'a-w', $this->folder]))->mustRun();
    }

    protected function tearDown(): void
    {
        $this->open();
        (new Filesystem())->remove($this->folder);
        parent::tearDown();
    }

    public function testPagesAreReadAndWritesSayWhere(): void
    {
        $pages = ['/', '/workshop/new', '/workshop/book'];
        foreach (['11', '12', '13', '14', '15', '16', '21', '31', '41', '51', '52', '54', '61', '62', '63', '71', '72', '73'] as $sheet) {
            $pages[] = "/craft/curlew/$sheet";
        }
        $pages[] = '/craft/curlew/live.json';
        $writes = [
            ['/craft/curlew/rename', ['name' => 'Whimbrel']],
            ['/craft/curlew/bench', ['thing' => 'cable', 'to' => '1']],
            ['/uploads', ['bytes' => 100]],
            ['/workshop/by-logs', ['name' => 'Friend']],
        ];
        $answers = $this->asked([
            ...array_map(static fn (string $page): array => ['GET', $page, []], $pages),
            ...array_map(static fn (array $write): array => ['POST', ...$write], $writes),
        ]);
        foreach ($pages as $i => $page) {
            self::assertSame(200, $answers[$i][0], "$page: {$answers[$i][1]}");
        }
        foreach ($writes as $i => [$address]) {
            [$status, $said] = $answers[\count($pages) + $i];
            self::assertSame(507, $status, "$address: $said");
            self::assertStringContainsString(str_replace('/', '\/', $this->folder), $said, $address);
            self::assertStringContainsString('permissions', $said, $address);
        }
    }

    /**
     * @param list<array{string, string, array<string, mixed>}> $asked
     *
     * @return list<array{int, string}>
     */
    private function asked(array $asked): array
    {
        // Whoever is root writes everywhere, but for this.
        $bound = 0 === posix_getuid() ? ['setpriv', '--bounding-set=-all', '--inh-caps=-all'] : [];
        $words = [...$bound, \PHP_BINARY, '-d', 'memory_limit=512M', __DIR__.'/ask.php'];
        $process = new Process(
            [...$words, ...array_map(static fn (array $one): string => (string) json_encode($one), $asked)],
            env: ['ORTHOLEX_DATA' => $this->folder, 'TMPDIR' => $this->folder],
            timeout: 120,
        );
        $process->mustRun();
        $answers = [];
        foreach (explode("\n", trim($process->getOutput())) as $line) {
            $answer = json_decode($line, true);
            self::assertIsArray($answer, $line);
            $answers[] = [\is_int($answer[0]) ? $answer[0] : 0, \is_string($answer[1]) ? $answer[1] : ''];
        }
        self::assertCount(\count($asked), $answers, $process->getErrorOutput());

        return $answers;
    }

    private function open(): void
    {
        if (is_dir($this->folder)) {
            (new Process(['chmod', '-R', 'u+w', $this->folder]))->run();
        }
    }
}

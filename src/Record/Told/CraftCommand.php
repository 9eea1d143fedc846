<?php

declare(strict_types=1);

namespace Ortholex\App\Record\Told;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookError;
use Ortholex\App\Book\Share\ShareChoice;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextSteps;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Settings\File\YamlText;
use Ortholex\App\Words\Aside;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Difference;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Yaml\Yaml;

#[AsCommand(name: 'craft', description: '“list” all craft, “show” or “export” one, “import” a book, “diff” two sets of settings.')]
final class CraftCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Sides $sides,
        private readonly Books $books,
        private readonly LogBook $logs,
        private readonly NextSteps $steps,
        private readonly Catalogue $catalogue,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'list, show, export, import or diff')
            ->addArgument('one', InputArgument::OPTIONAL, 'a craft; with import a book; with diff also CRAFT:SNAPSHOT or a YAML file')
            ->addArgument('other', InputArgument::OPTIONAL, 'with diff: what it is compared with, named likewise')
            ->addOption('json', null, InputOption::VALUE_NONE, 'print it as JSON')
            ->addOption('out', null, InputOption::VALUE_REQUIRED, 'with export: the whole book into this zip, not its settings as YAML')
            ->addOption('with', null, InputOption::VALUE_REQUIRED, 'with --out: home,serials,names; left out by default', '')
            ->addOption('without-logs', null, InputOption::VALUE_NONE, 'with --out: no logs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $word = static fn (string $name): string => \is_string($input->getArgument($name)) ? $input->getArgument($name) : '';
        $json = true === $input->getOption('json');
        try {
            $out = $input->getOption('out');
            $told = match ($word('what')) {
                'import' => $this->books->in($word('one'), $json),
                'list' => $this->all($json),
                'show' => $this->one($this->sides->craft($word('one')), $json),
                'export' => \is_string($out) && '' !== $out
                    ? $this->books->out($this->sides->craft($word('one')), $out, $this->with($input), $json)
                    : $this->export($this->sides->read($this->sides->craft($word('one'))), $json),
                'diff' => $this->differences($word('one'), $word('other'), $json),
                default => throw SettingsFileError::of(
                    "“{$word('what')}” is not one of: list, show, export, import, diff.",
                ),
            };
        } catch (SettingsFileError|BookError $e) {
            return Aside::refuse($output, $e->getMessage());
        }
        $text = match (true) {
            \is_string($told) => $told,
            $json => json_encode($told, self::JSON)."\n",
            default => Yaml::dump($told),
        };
        $output->write($text, false, OutputInterface::OUTPUT_RAW);

        return self::SUCCESS;
    }

    /** @throws SettingsFileError */
    private function with(InputInterface $input): ShareChoice
    {
        $given = $input->getOption('with');
        $with = \is_string($given) && '' !== $given ? explode(',', $given) : [];
        $unknown = array_diff($with, ['home', 'serials', 'names']);
        if ([] !== $unknown) {
            throw SettingsFileError::of('--with takes home, serials and names, not “'.implode(',', $unknown).'”.');
        }
        $has = static fn (string $what): bool => \in_array($what, $with, true);

        return new ShareChoice($has('home'), $has('serials'), $has('names'), true !== $input->getOption('without-logs'));
    }

    /** @return string|array<string, float|int|bool|string> */
    private function export(Craft $craft, bool $json): string|array
    {
        return $json ? $craft->settings->toArray() : YamlText::ofCraft($craft);
    }

    /** @return string|array{craft: list<array<string, mixed>>} */
    private function all(bool $json): string|array
    {
        $rows = array_map($this->facts(...), $this->entities->getRepository(Craft::class)->findBy([], ['id' => 'ASC']));
        if ($json) {
            return ['craft' => $rows];
        }
        $text = '';
        foreach ($rows as $row) {
            $read = null === $row['read'] ? 'never read' : "last read {$row['read']}";
            $text .= \sprintf("%-12s %-24s %s\n", $row['craft'], $row['kind'], $read);
        }

        return $text;
    }

    /** @return string|array<string, mixed> */
    private function one(Craft $craft, bool $json): string|array
    {
        $next = array_map(static fn (NextStep $s): string => $s->text, $this->steps->of($craft));
        $facts = $this->facts($craft) + ['next' => $next];

        return $json ? $facts : Yaml::dump($facts);
    }

    /**
     * @return array{craft: string, name: string, kind: string, board: string|null, firmware: string|null, revision: int,
     *     read: string|null, logs: int}
     */
    private function facts(Craft $craft): array
    {
        return [
            'craft' => $craft->slug,
            'name' => $craft->name,
            'kind' => $craft->kind,
            'board' => $craft->board,
            'firmware' => null === $craft->version ? null : "$craft->firmware $craft->version",
            'revision' => $craft->revision,
            'read' => $craft->readAt?->format('Y-m-d H:i'),
            'logs' => $this->logs->count($craft),
        ];
    }

    /**
     * @return string|array<string, mixed>
     *
     * @throws SettingsFileError
     */
    private function differences(string $one, string $other, bool $json): string|array
    {
        if ('' === $one || '' === $other) {
            throw SettingsFileError::of('Name two to compare, as in: craft diff curlew tune.yaml');
        }
        [$a, $b] = [$this->sides->named($one), $this->sides->named($other)];
        $groups = [];
        $current = Version::parse(Catalogue::CURRENT);
        foreach (Difference::between($a, $b) as $d) {
            $isBoards = $this->catalogue->has($d->name, $current);
            $group = $isBoards ? $this->catalogue->get($d->name, $current)->group->value : 'escs';
            $groups[$group][] = ['setting' => $d->name, 'one' => $d->book, 'other' => $d->craft];
        }
        if ($json) {
            return ['differences' => $groups, 'only_one' => $a->except($b)->names(), 'only_other' => $b->except($a)->names()];
        }
        $text = '';
        foreach ($groups as $group => $rows) {
            $text .= "$group\n";
            foreach ($rows as $row) {
                $text .= \sprintf("  %-36s %s → %s\n", $row['setting'], Yaml::dump($row['one']), Yaml::dump($row['other']));
            }
        }
        foreach ([[$one, $a->except($b)], [$other, $b->except($a)]] as [$which, $only]) {
            $text .= 0 === \count($only) ? '' : \count($only)." only in $which\n";
        }

        return '' === $text ? "no difference\n" : $text;
    }
}

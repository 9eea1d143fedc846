<?php

declare(strict_types=1);

namespace Ortholex\App\SetUp;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Storage\DiskTrouble;
use Ortholex\App\Work\Process\ConsoleCommand;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Room\Assembly;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Demo\DemoCraft;
use Ortholex\Demo\EarlierFlights;
use Ortholex\Demo\Scenario;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\ArrayInput;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\NullOutput;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

#[AsCommand(name: 'app:set-up', description: 'Makes the database, the shelf and the demo craft where they are missing.')]
final class SetUpCommand extends Command
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Catalogue $catalogue,
        private readonly SimulatedBenches $rooms,
        private readonly Benches $benches,
        private readonly Shelf $shelf,
        private readonly Proofs $proofs,
        private readonly string $dataFolder,
        private readonly string $projectFolder,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('fresh', null, InputOption::VALUE_NONE, 'throw all data away first')->addOption(
            'no-flights',
            null,
            InputOption::VALUE_NONE,
            'leave the demo flights out',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            return $this->setUp($input, $output);
        } catch (\Throwable $e) {
            $disk = DiskTrouble::behind($e, $this->dataFolder) ?? (DiskTrouble::in($this->dataFolder) ?? throw $e);
            $output->writeln($disk->words);

            return Command::FAILURE;
        }
    }

    private function setUp(InputInterface $input, OutputInterface $output): int
    {
        $files = new Filesystem();
        if (true === $input->getOption('fresh')) {
            $this->entities->getConnection()->close();
            $files->remove($this->dataFolder);
        }
        $files->mkdir($this->dataFolder);
        if (!$this->migrate()) {
            $output->writeln('The database could not be brought up to date.');

            return Command::FAILURE;
        }
        $made = ShelfMaker::fill($this->shelf->folder()) + ShelfMaker::fillEscs($this->shelf->escFolder())
            + ShelfMaker::fillChips($this->shelf->chipFolder());
        if ($made > 0) {
            $output->writeln("made $made firmware images for the shelf");
        }
        $new = [];
        $memories = Scenario::memories();
        foreach (Scenario::craft() as $demo) {
            // What lies on the bench is written anew each time: data of an older Ortholex has it nowhere.
            $assembly = Assembly::of($this->rooms, $this->catalogue, $demo->slug, $demo->build($memories));
            if (!$assembly->isSoldered()) {
                $assembly->solder($this->shelf->folder(), $this->shelf->escFolder());
            }
            if (null === $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $demo->slug])) {
                $this->enter($demo);
                $output->writeln("put {$demo->name} on the bench");
                $new[$demo->slug] = true;
            }
        }
        $flown = true === $input->getOption('no-flights') || $this->fly(array_keys($new), $output);
        foreach (array_keys($new) as $slug) {
            $this->leave($slug);
        }

        return $flown ? Command::SUCCESS : Command::FAILURE;
    }

    /**
     * What was flown before: each craft in a process of its own, side by side.
     *
     * @param list<string> $crafts
     */
    private function fly(array $crafts, OutputInterface $output): bool
    {
        $under = [];
        foreach ($crafts as $slug) {
            if ([] !== EarlierFlights::of($slug)) {
                $words = ConsoleCommand::words($this->projectFolder, 'app:earlier-flights', $slug);
                $under[$slug] = new Process($words, $this->projectFolder, timeout: null);
                $under[$slug]->start(static function (string $type, string $said) use ($output): void {
                    $output->write($said);
                });
            }
        }
        $all = true;
        foreach ($under as $process) {
            $all = 0 === $process->wait() && $all;
        }

        return $all;
    }

    /** What became of it after its last flight. */
    private function leave(string $slug): void
    {
        $baud = Scenario::craft()[$slug]->moduleBaud;
        if (null !== $baud) {
            $this->rooms->world($slug)?->store->change(static function (WorldState $s) use ($baud): void {
                $plumb = PlumbState::fromArray($s->plumb);
                $plumb->baud = $baud;
                $plumb->keep();
                $s->plumb = $plumb->toArray();
            });
        }
    }

    private function migrate(): bool
    {
        // Kept in the file: readers and a writer need not wait for each other.
        $this->entities->getConnection()->executeStatement('PRAGMA journal_mode = WAL');
        $quiet = new ArrayInput(['--no-interaction' => true, '--allow-no-migration' => true, '--quiet' => true]);
        $quiet->setInteractive(false);

        return Command::SUCCESS === $this->getApplication()?->find('doctrine:migrations:migrate')->run($quiet, new NullOutput());
    }

    private function enter(DemoCraft $demo): void
    {
        $craft = new Craft($demo->slug, $demo->name, $demo->kind, $demo->purpose, $demo->story, $demo->uses);
        $craft->wires = $demo->wires;
        $craft->radio = $demo->shown;
        $craft->packs = array_map(static fn (PackCard $c): array => $c->toArray(), $demo->packs);
        $this->entities->persist($craft);
        $this->entities->flush();
        $settings = $this->benches->of($craft)->aboard()->settings ?? SettingSet::none();
        foreach ($demo->proved as $what) {
            $this->proofs->prove($craft, $what, $settings);
        }
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Firmware\Shelf;
use Ortholex\App\Flight\FlyHandler;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Demo\DemoCraft;
use Ortholex\Demo\Scenario;
use Ortholex\Demo\ShelfMaker;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\ArrayInput;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;

#[AsCommand(name: 'app:set-up', description: 'Makes the database, the shelf and the demo craft where they are missing.')]
final class SetUpCommand extends Command
{
    private const DEMO_FLIGHTS = ['curlew' => ['mixed_sticks', 'hover_and_climb'], 'bittern' => ['hover_and_climb', 'cruise:lost_sync']];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Catalogue $catalogue,
        private readonly Worlds $worlds,
        private readonly Shelf $shelf,
        private readonly FlyHandler $flights,
        private readonly string $dataFolder,
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
        $files = new Filesystem();
        if (true === $input->getOption('fresh')) {
            $this->entities->getConnection()->close();
            $files->remove($this->dataFolder);
        }
        $files->mkdir($this->dataFolder);
        $migrate = $this->getApplication()?->find('doctrine:migrations:migrate');
        $quiet = new ArrayInput(['--no-interaction' => true, '--allow-no-migration' => true, '--quiet' => true]);
        $quiet->setInteractive(false);
        if (null === $migrate || Command::SUCCESS !== $migrate->run($quiet, new \Symfony\Component\Console\Output\NullOutput())) {
            $output->writeln('The database could not be brought up to date.');

            return Command::FAILURE;
        }
        $made = ShelfMaker::fill($this->shelf->folder()) + ShelfMaker::fillEscs($this->shelf->escFolder());
        if ($made > 0) {
            $output->writeln("made $made firmware images for the shelf");
        }
        foreach (Scenario::craft() as $demo) {
            if (null === $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $demo->slug])) {
                $craft = new Craft($demo->slug, $demo->name, $demo->kind, $demo->purpose, $demo->story, $demo->uses);
                $craft->wires = $demo->wires;
                $this->entities->persist($craft);
                $this->entities->flush();
                $this->assemble($demo, $craft);
                $output->writeln("put {$demo->name} on the bench");
                foreach (true === $input->getOption('no-flights') ? [] : self::DEMO_FLIGHTS[$demo->slug] ?? [] as $i => $card) {
                    $this->fly($craft, $card, 100 + $i);
                    $output->writeln("flew $card with {$demo->name}");
                }
            }
        }

        return Command::SUCCESS;
    }

    /** Solders the firmware and settings of the scenario into the simulated board. */
    private function assemble(DemoCraft $demo, Craft $craft): void
    {
        $world = $this->worlds->of($craft);
        $image = IntelHex::parse(
            (string) file_get_contents(
                $this->shelf->folder().'/'.strtolower("loam-$demo->version-{$demo->model->hardwareId}").'.hex',
            ),
        );
        (new FlashFile($world->store->flashPath(), $demo->model->flashBytes()))->write(0, $image->flat());
        foreach ($demo->escs as $pad => [$name]) {
            $world->drive
                ->escFlash($pad)
                ->write(0, IntelHex::parse((string) file_get_contents($this->shelf->escFolder()."/$name.hex"))->flat());
        }
        $version = Version::parse($demo->version);
        $current = Version::parse(Catalogue::CURRENT);
        $settings = Migration::between($this->catalogue, $this->catalogue->defaults($current)->with($demo->settings), $current, $version)
            ->settings;
        $world->store->change(static function (WorldState $s) use ($settings, $demo): void {
            $s->kept = $settings->toArray();
            $s->keptVersion = $demo->version;
            $s->soldered = $demo->wires['wires'];
        });
        // Powered once, each ESC lays out its settings; then the builder's own are put in.
        $world->move('pack', '1');
        $world->store->change(static function (WorldState $s) use ($demo): void {
            foreach ($demo->escs as $pad => [, $settings]) {
                $esc = $s->esc($pad);
                $esc->settings = array_merge($esc->settings, $settings);
                $s->putEsc($pad, $esc);
            }
        });
        $world->move('pack', '0');
    }

    /** An earlier flight of the scenario: the craft is powered, flown and put back. */
    private function fly(Craft $craft, string $card, int $seed): void
    {
        $world = $this->worlds->of($craft);
        [$card, $fault] = [...explode(':', $card), ''];
        if ('' !== $fault) {
            $world->move("fault:$fault", '1');
        }
        $world->move('pack', '1');
        $job = new Job($craft, 'fly', 'An earlier flight', ['card' => $card, 'seed' => $seed, 'seconds' => 40], microtime(true));
        $job->state = JobState::Done;
        $job->seen = true;
        $this->entities->persist($job);
        $this->entities->flush();
        $this->flights->run($job, new JobProgress($this->entities->getConnection(), (int) $job->id));
        $world->move('pack', '0');
        if ('' !== $fault) {
            $world->move("fault:$fault", '0');
        }
    }
}

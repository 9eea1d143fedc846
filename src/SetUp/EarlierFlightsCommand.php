<?php

declare(strict_types=1);

namespace Ortholex\App\SetUp;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Series\Series;
use Ortholex\App\Series\SeriesBook;
use Ortholex\App\Storage\DiskTrouble;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Series\SeriesPlan;
use Ortholex\Demo\DemoFlight;
use Ortholex\Demo\DemoSeries;
use Ortholex\Demo\EarlierFlights;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

#[AsCommand(name: 'app:earlier-flights', description: 'Flies what a craft of the demo has flown before; started by the set-up itself.')]
final class EarlierFlightsCommand extends Command
{
    /** Whose flights are whose is told by the second; no flight takes less. */
    private const AFTER = '+1 second';

    /** @param iterable<JobHandler> $handlers */
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SimulatedBenches $rooms,
        private readonly Benches $benches,
        private readonly LinkService $links,
        private readonly SeriesBook $series,
        private readonly ClockInterface $clock,
        #[TaggedIterator(JobHandler::class)] private readonly iterable $handlers,
        private readonly string $dataFolder,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('craft', InputArgument::REQUIRED, 'short name of the craft');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $craft = $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $input->getArgument('craft')]);
        if (null === $craft) {
            $output->writeln('There is no such craft.');

            return Command::FAILURE;
        }
        try {
            foreach (EarlierFlights::of($craft->slug) as $one) {
                $one instanceof DemoSeries ? $this->series($craft, $one, $output) : $this->fly($craft, $one, $output);
            }
            $this->read($craft);
        } catch (\Throwable $e) {
            $disk = DiskTrouble::behind($e, $this->dataFolder) ?? (DiskTrouble::in($this->dataFolder) ?? throw $e);
            $output->writeln($disk->words);

            return Command::FAILURE;
        }

        return Command::SUCCESS;
    }

    /** Linked once more when it had flown, so that its sheets have a last read to show. */
    private function read(Craft $craft): void
    {
        $bench = $this->benches->of($craft);
        // In this order its ESCs answer, too.
        $bench->move('cable', '1');
        $this->links->link($craft);
        $bench->move('pack', '1');
        $this->links->readEscs($craft);
        $this->links->letGo($craft);
        $bench->move('cable', '0');
        $bench->move('pack', '0');
    }

    private function series(Craft $craft, DemoSeries $demo, OutputInterface $output): void
    {
        $base = $this->benches->of($craft)->aboard()->settings ?? SettingSet::none();
        $parts = '' !== $demo->part;
        $card = $demo->flights[0]->card ?? Card::MixedSticks;
        $values = $parts ? array_map('floatval', range(1, \count($demo->variants))) : $demo->values;
        $settings = $parts ? [SeriesPlan::REPLACED] : $demo->settings;
        $baseline = $parts ? 1.0 : $base->number($settings[0]);
        $series = new Series($craft, $settings, $values, $baseline, $card, $base, new \DateTimeImmutable(self::AFTER));
        [$series->part, $series->variants] = [$demo->part, $demo->variants];
        $this->entities->persist($series);
        $this->entities->flush();
        foreach ($demo->flights as $flight) {
            $log = $this->fly($craft, $flight, $output);
            if ($parts) {
                $this->series->flownWith($series, $log, 1 + (int) array_search($flight->variant, $demo->variants, true));
            }
        }
        $this->series->end($series);
    }

    /** The craft is powered, flown with what was set then, and put back. */
    private function fly(Craft $craft, DemoFlight $flight, OutputInterface $output): Log
    {
        $bench = $this->benches->of($craft);
        $store = $this->rooms->world($craft->slug)->store ?? throw new \LogicException("Nothing lies there for $craft->slug.");
        $kept = $store->peek()->kept;
        $store->change(static function (WorldState $s) use ($flight): void {
            $s->kept = $flight->change + $s->kept;
        });
        if ('' !== $flight->fault) {
            $bench->move("fault:$flight->fault", '1');
        }
        $bench->move('pack', '1');
        $bench->move('cable', '1');
        $this->links->holds($craft);
        $now = (float) $this->clock->now()->format('U.u');
        $order = ['card' => $flight->card->value, 'seed' => $flight->seed, 'seconds' => $flight->seconds];
        $job = new Job($craft, 'fly', 'An earlier flight', $order, $now);
        $job->state = JobState::Done;
        $job->seen = true;
        $this->entities->persist($job);
        $this->entities->flush();
        $id = null;
        foreach ($this->handlers as $handler) {
            if ($handler->kind() === $job->kind) {
                $id = $handler->run($job, new JobProgress($this->entities->getConnection(), (int) $job->id))['log'] ?? null;
            }
        }
        $bench->move('cable', '0');
        $bench->move('pack', '0');
        $this->links->letGo($craft);
        if ('' !== $flight->fault) {
            $bench->move("fault:$flight->fault", '0');
        }
        $store->change(static function (WorldState $s) use ($kept): void {
            $s->kept = $kept;
        });
        $output->writeln("flew {$flight->card->value} with $craft->name");

        return $this->entities->find(Log::class, $id) ?? throw new \LogicException('The flight left no log.');
    }
}

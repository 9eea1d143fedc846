<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Video\ChannelPlan;
use Ortholex\Core\Video\Heron;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'video', description: '“plan” finds the frequencies at which pilots disturb each other least.')]
final class VideoCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    public function __construct(private readonly PlaceLaws $laws, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'plan');
        $this->addOption('pilots', null, InputOption::VALUE_REQUIRED, 'how many need a frequency, 1 to 8');
        $this->addOption('taken', null, InputOption::VALUE_REQUIRED, 'frequencies that others use already, as 5740,5800', '');
        $this->addOption('offer', null, InputOption::VALUE_REQUIRED, 'frequencies to choose from, in MHz; else those of a Heron 400', '');
        $this->addOption('place', null, InputOption::VALUE_REQUIRED, 'within the law of which place, as it is named in the table');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            if ('plan' !== $input->getArgument('what')) {
                throw new \InvalidArgumentException('Video can be told to “plan”: video plan --pilots 4');
            }
            $pilots = $input->getOption('pilots');
            if (!\is_string($pilots) || 1 !== preg_match('~^\d{1,2}$~', $pilots)) {
                throw new \InvalidArgumentException('--pilots takes how many need a frequency, 1 to '.ChannelPlan::MOST_PILOTS.'.');
            }
            $offer = self::list($input, 'offer') ?: Heron::mhz();
            $place = $input->getOption('place');
            $law = null;
            if (\is_string($place)) {
                $all = $this->laws->all();
                $law = $all[$place] ?? throw new \InvalidArgumentException(
                    "There is no place “{$place}” in the table. It has: ".implode('; ', array_keys($all)).'.',
                );
                $offer = $law->allowed($offer);
            }
            $plan = ChannelPlan::best($offer, (int) $pilots, self::list($input, 'taken'));
        } catch (\InvalidArgumentException $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $closest = is_finite($plan->closestMhz()) ? $plan->closestMhz() : null;
        if (true === $input->getOption('json')) {
            $told = ['mhz' => $plan->mhz(), 'clashes' => $plan->clashes(), 'closest_mhz' => $closest, 'place' => $law?->place];
            $told['most_mw'] = null === $law ? null : array_map($law->mostMw(...), $plan->mhz());
            $output->writeln(json_encode($told, self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        foreach ($plan->mhz() as $mhz) {
            $output->writeln(\sprintf('%.0f MHz', $mhz).(null === $law ? '' : \sprintf(', at most %g mW', $law->mostMw($mhz))));
        }
        $output->writeln(
            0 === $plan->clashes()
                ? 'No two are too near, and no third-order product falls on one.'
                : \sprintf('%d neighbours or third-order products disturb: there is no better choice.', $plan->clashes()),
        );

        return self::SUCCESS;
    }

    /** @return list<float> */
    private static function list(InputInterface $input, string $name): array
    {
        $given = $input->getOption($name);
        $mhz = [];
        foreach (array_filter(explode(',', \is_string($given) ? $given : ''), static fn (string $f): bool => '' !== trim($f)) as $f) {
            if (!is_numeric(trim($f)) || (float) $f < 100 || (float) $f > 10_000) {
                throw new \InvalidArgumentException("--$name takes frequencies in MHz, as 5740,5800; “{$f}” is none.");
            }
            $mhz[] = (float) $f;
        }

        return $mhz;
    }
}

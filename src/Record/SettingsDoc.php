<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingType;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'app:settings-doc', description: 'Prints docs/settings.md, drawn from the catalogue.')]
final class SettingsDoc extends Command
{
    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    public function text(Catalogue $catalogue): string
    {
        $out = "# Settings\n\nDrawn from the catalogue (core/Settings/LoamTable.php) by `bin/console app:settings-doc`; do not edit.\n\n";
        $out .= "| setting | what | unit | range | default | why this default | versions | restart |\n|---|---|---|---|---|---|---|---|\n";
        $out .= $this->rows($catalogue->all());
        $out .= "\n## ESCs\n\nIn each ESC, as `esc.PLACE.KEY`, such as `esc.rear_left.advance_deg` (core/Settings/EscTable.php).\n\n";
        $out .= "| key | what | unit | range | default | why this default | versions | restart |\n|---|---|---|---|---|---|---|---|\n";

        return $out.$this->rows(EscTable::rows());
    }

    /** @param array<string, Setting> $settings */
    private function rows(array $settings): string
    {
        $out = '';
        foreach ($settings as $s) {
            $range = match ($s->type) {
                SettingType::Choice => implode(', ', $s->choices),
                SettingType::Flag => 'on, off',
                SettingType::Zones => 'channel:from-to, either end left out; “with” and commas join',
                SettingType::Cells => 'layout:column,row, with spaces between',
                SettingType::Times => 'number:when, with spaces between',
                default => implode(
                    '; ',
                    array_map(
                        static fn (string|int $since, array $r): string => (\count($s->ranges) > 1 ? "from $since: " : '').
                            "$r[0] to $r[1]",
                        array_keys($s->ranges),
                        $s->ranges,
                    ),
                ),
            };
            $default = \is_bool($s->default) ? ($s->default ? 'on' : 'off') : ('' === $s->default ? 'none' : (string) $s->default);
            $out .= \sprintf(
                "| `%s` | %s. %s | %s | %s | %s | %s | %s | %s |\n",
                $s->name,
                $this->words->label($s),
                $this->words->help($s),
                $s->unit,
                $range,
                $default,
                $this->words->why($s),
                'from '.$s->since.(null === $s->until ? '' : ", gone in $s->until"),
                $s->restart ? 'yes' : '',
            );
        }

        return $out;
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $output->write($this->text(Catalogue::loam()), false, OutputInterface::OUTPUT_RAW);

        return Command::SUCCESS;
    }
}

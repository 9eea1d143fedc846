<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\SettingSheets;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;

/** What the book knows of settings: where each is changed, and that some are staged. */
final readonly class SettingsInBook implements NextStepSource, SearchSource
{
    public function __construct(
        private Staging $staging,
        private Catalogue $catalogue,
        private SettingSheets $sheets,
        private Words $words,
        private Writing $writing,
    ) {
    }

    public function steps(Craft $craft): iterable
    {
        $open = $this->writing->interrupted($craft);
        if (null !== $open) {
            $text = "“{$open->journal->what}” was interrupted: go on with it, or take it back.";
            $at = $this->sheets->address($craft->slug, $open->journal->items[0]['name'] ?? '');
            yield new NextStep(Urgency::Unfinished, $text, $at, 'Decide it');
        }
        $staged = $this->staging->of($craft)->names();
        if ([] !== $staged) {
            $text =
                1 === \count($staged)
                    ? 'One change is staged, not yet on the craft.'
                    : \count($staged).' changes are staged, not yet on the craft.';
            yield new NextStep(Urgency::Staged, $text, $this->sheets->address($craft->slug, $staged[0]), 'Open the tray');
        }
    }

    public function hits(Craft $craft): iterable
    {
        $all = $this->catalogue->of($craft->version());
        foreach (EscTable::only($craft->settings)->names() as $name) {
            $all[$name] = $this->catalogue->get($name, $craft->version());
        }
        foreach ($all as $setting) {
            $to = $this->sheets->address($craft->slug, $setting->name);
            yield new SearchHit(HitKind::Setting, $setting->name, $this->words->label($setting), $to);
        }
    }
}

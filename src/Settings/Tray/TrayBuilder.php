<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Writing;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;
use Symfony\Component\HttpFoundation\RequestStack;

/** Gathers what the tray shows. */
final readonly class TrayBuilder
{
    /**
     * @param iterable<TrayEffects>  $effects
     * @param iterable<TrayWarnings> $warnings
     */
    public function __construct(
        private Staging $staging,
        private Catalogue $catalogue,
        private LinkService $links,
        private Airframes $frames,
        private Writing $writing,
        private RequestStack $requests,
        #[TaggedIterator(TrayEffects::class)] private iterable $effects,
        #[TaggedIterator(TrayWarnings::class)] private iterable $warnings,
    ) {
    }

    public function of(Craft $craft): TrayView
    {
        // First the number, then what is staged: what comes between is seen as later.
        $seen = $this->staging->revision($craft);
        $staged = $this->staging->of($craft)->among($craft->settings);
        $linked = $this->links->isLinked($craft);
        if ($staged->isEmpty()) {
            return new TrayView([], [], [], 0, $linked, $seen, $this->writing->interrupted($craft));
        }
        $base = $this->staging->base($craft);
        $items = [];
        foreach ($staged as $name => $value) {
            if ($this->catalogue->has($name, $craft->version())) {
                $setting = $this->catalogue->get($name, $craft->version());
                $items[] = new TrayItem($setting, $base[$name] ?? $craft->settings[$name], $value);
            }
        }
        $after = $craft->settings->with($staged);
        $motors = \count(($this->frames->staged($craft) ?? $this->frames->of($craft))->motors);
        $effects = [];
        foreach ($this->effects as $source) {
            foreach ($source->effects($craft, $after) as $effect) {
                if ($effect->counts()) {
                    $effects[] = $effect;
                }
            }
        }

        return new TrayView(
            $items,
            Consistency::of($after, $craft->version(), new Circumstances($motors, $craft->processor ?? 'F4', $craft->leftOut)),
            $effects,
            CommitPlan::of(EscTable::without($staged), $this->catalogue, $craft->version())->restarts(),
            $linked,
            $seen,
            $this->writing->interrupted($craft),
            $this->warnings($craft),
            $this->log(),
        );
    }

    /** Number of the log that the page is about: a Commit is judged by the same. */
    private function log(): string
    {
        $log = $this->requests->getMainRequest()?->query->all()['log'] ?? null;

        return is_numeric($log) ? (string) (int) $log : '';
    }

    /** @return list<TrayWarning> of all that is staged */
    public function warnings(Craft $craft): array
    {
        $warnings = [];
        foreach ($this->warnings as $source) {
            array_push($warnings, ...$source->warnings($craft));
        }

        return $warnings;
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\CraftLocks;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/** The second half of the one road: what was seen in the tray, checked together, goes to the craft; one Commit at a time. */
final readonly class Commit
{
    /** More settings than so many at once are worth a snapshot of before. */
    private const MANY = 3;

    public function __construct(
        private EntityManagerInterface $entities,
        private Staging $staging,
        private LinkService $links,
        private Escs $escs,
        private Airframes $frames,
        private Words $words,
        private CraftLocks $locks,
        private Snapshots $snapshots,
        private Writing $writing,
    ) {
    }

    /**
     * @param bool $byItself by work that staged it itself, so that no tray showed it
     *
     * @throws ConflictHttpException when another is writing, or the tray showed something else
     * @throws LinkError             when the link goes; what was written by then is in the journal, the rest stays staged
     * @throws SettingError          when the staged settings contradict each other
     */
    public function run(Craft $craft, string $reason, bool $byItself = false): ChangeEntry
    {
        if (!$this->locks->hold($craft)) {
            throw new ConflictHttpException('Another Commit, or other work on this craft, is under way. Wait, and look again.');
        }
        try {
            // What another has written meanwhile counts.
            $this->entities->refresh($craft);
            $this->writing->demandNothingOpen($craft);
            $this->wakeEscs($craft);
            if (!$byItself) {
                $this->staging->demandSeen($craft);
            }
            $changes = $this->staging->of($craft)->among($craft->settings);
            if ($changes->isEmpty()) {
                throw SettingError::because('tray', 'nothing is staged');
            }
            if (!$craft->byHand) {
                $this->demandReachable($craft, $changes);
            }
            $this->demandSound($craft);
            if (\count($changes) > self::MANY) {
                $this->snapshots->take($craft, mb_substr("Before “{$reason}”", 0, 120), true);
            }

            return $craft->byHand
                ? $this->writing->byHand($craft, $changes, $reason)
                : $this->writing->write($craft, $changes, 'Commit', $reason);
        } finally {
            $this->locks->release($craft);
        }
    }

    /** ESCs that came to power since they were last read answer now, whatever sheet the person is on. */
    private function wakeEscs(Craft $craft): void
    {
        $wanted = EscTable::only($this->staging->of($craft)->among($craft->settings));
        if (!$wanted->isEmpty() && !$craft->byHand && $this->links->isLinked($craft) && !$this->escs->isRead($craft)) {
            $this->links->readEscs($craft);
        }
    }

    /** @throws LinkError */
    private function demandReachable(Craft $craft, SettingSet $changes): void
    {
        $this->links->demandLinked($craft);
        if (!EscTable::only($changes)->isEmpty() && !$this->escs->isRead($craft)) {
            throw LinkError::refused(
                'write to the ESCs',
                'they do not answer now. Connect the flight pack while the board is linked; if it was on before, take it off and on again',
            );
        }
    }

    /** @throws SettingError for the first contradiction that cannot be */
    private function demandSound(Craft $craft): void
    {
        $motors = \count(($this->frames->staged($craft) ?? $this->frames->of($craft))->motors);
        $around = new Circumstances($motors, $craft->processor ?? 'F4', $craft->leftOut);
        foreach (Consistency::of($this->staging->preview($craft), $craft->version(), $around) as $clash) {
            if ($clash->refuses()) {
                throw SettingError::because($clash->setting, rtrim(lcfirst($this->words->of($clash->what)), '.'));
            }
        }
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Shelf\EscShelfItem;
use Ortholex\App\Shelf\Shelf;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\JobStep;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\PageWriter;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;

/**
 * Writes ESC images through the board, one ESC after the other; each gets the variant made for its own hardware.
 *
 * One that fails leaves the others done. Settings that both firmwares know are carried over.
 */
final readonly class EscFlashHandler implements JobHandler
{
    public function __construct(
        private Shelf $shelf,
        private Benches $benches,
        private LinkService $links,
        private Snapshots $snapshots,
        private Escs $escs,
        private EntityManagerInterface $entities,
        private Words $words,
        private CraftInterlocks $interlocks,
        private EscOrders $orders,
    ) {
    }

    public function kind(): string
    {
        return 'flash-escs';
    }

    public function route(): string
    {
        return 'esc_firmware';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $images = [];
        foreach (\is_array($job->parameters['escs'] ?? null) ? $job->parameters['escs'] : [] as $place => $image) {
            $images[(string) $place] = \is_string($image) ? $image : '';
        }
        $this->links->demandLinked($craft);
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::FlashEsc);
        $this->snapshots->take($craft, 'Before flashing ESCs', true);
        $key = $job->parameters['image'] ?? '';
        $orders = $this->orders->begin($craft, $images, \is_string($key) ? $key : '');
        $done = $failed = [];
        $count = max(1, \count($orders));
        $pads = array_flip(EscTable::pads($craft->settings));
        foreach (array_keys($orders) as $n => $place) {
            $name = str_replace('_', ' ', $place);
            $tell = static function (float $share, string $doing) use ($progress, $n, $count, $place, $name): void {
                $progress->at(0.02 + (0.95 * ($n + $share)) / $count, "$name: $doing", new JobStep(place: $place));
            };
            try {
                $item = $this->shelf->escItem($orders[$place]->image);
                $this->flashOne($craft, $pads[$place] ?? 0, $orders[$place], $item, $tell);
                $done[$place] = $item->manifest->inWords();
                $this->orders->done($craft, $orders[$place]);
            } catch (LinkError|FirmwareError $e) {
                $failed[$place] =
                    $e->getMessage().
                    ' Try it again; the second try often succeeds. If it fails three times, suspect the signal wire or the ESC.';
                // It knows by now what the ESC held.
                $known = $craft->escOrders[$orders[$place]->id] ?? null;
                $this->orders->keep(
                    $craft,
                    (null === $known ? $orders[$place] : EscOrder::fromArray($orders[$place]->id, $known))->failed($failed[$place]),
                );
                if ($e instanceof LinkError && $e->lost) {
                    break;
                }
            }
            $progress->have(['done' => $done, 'failed' => $failed]);
        }
        $progress->at(0.98, 'reading all ESCs again');
        $this->escs->read($craft);
        $this->entities->flush();
        $said = implode(
            ' ',
            array_map(
                static fn (string $place, string $why): string => ucfirst(str_replace('_', ' ', $place)).": $why",
                array_keys($failed),
                $failed,
            ),
        );
        if ([] === $done && [] !== $failed) {
            throw FirmwareError::because($said);
        }

        return ['done' => $done, 'failed' => $failed] + ([] === $failed ? [] : [JobHandler::HALF => $said]);
    }

    /** @param \Closure(float, string): void $tell */
    private function flashOne(Craft $craft, int $pad, EscOrder $order, EscShelfItem $item, \Closure $tell): void
    {
        $client = new EscClient($this->benches->client($craft), $pad);
        $tell(0.0, 'asking who it is');
        $esc = $client->identity();
        if (!$order->isFor($esc->serial)) {
            throw FirmwareError::because("Another ESC sits there by now: $esc->serial, not $order->id. Read them again.");
        }
        $image = Shelf::read($item->path);
        $fit = $item->manifest->fit($esc, $image);
        if (!$fit->mayBeWritten()) {
            throw FirmwareError::because('The image does not fit and was not written. '.implode(' ', $this->words->all($fit->reasons)));
        }
        // One found in its bootloader cannot be asked what it held; one that was interrupted may hold defaults by now.
        $before = $order->held ?? ($esc->inBootloader() ? EscTable::at($order->place, $craft->settings) : $client->readSettings());
        $this->orders->keep($craft, $order->holding($before));
        if (!$esc->inBootloader()) {
            $client->toBootloader();
            $esc = $client->identity();
            if (!$esc->inBootloader()) {
                throw FirmwareError::because('It did not stay in its bootloader.');
            }
        }
        $pages = PageWriter::pages($image, $esc->flashFrom, $esc->pageBytes);
        $writer = new PageWriter($client);
        $skip = $writer->alreadyWritten($pages);
        $skip = $skip === \count($pages) ? 0 : $skip;
        $writer->write($pages, $skip, static fn (int $done, int $of) => $tell(0.05 + (0.65 * $done) / $of, "writing page $done of $of"));
        $writer->verify($pages, static fn (int $done, int $of) => $tell(0.7 + (0.2 * $done) / $of, "reading back page $done of $of"));
        $client->run();
        $now = $client->identity();
        if ($now->inBootloader() || 0 !== $item->manifest->version->compare($now->version ?? $item->manifest->version)) {
            throw FirmwareError::because('It was written and verified, but does not start.');
        }
        $carried = self::carried($before, $now);
        if (!$carried->isEmpty()) {
            $tell(0.95, 'returning its settings');
            $client->writeSettings($carried);
        }
        $held = $client->readSettings();
        foreach ($carried as $key => $value) {
            if (!isset($held[$key]) || !Setting::same($held[$key], $value)) {
                throw FirmwareError::because("It runs, but did not take back $key.");
            }
        }
    }

    /** What the new firmware knows as well. */
    private static function carried(SettingSet $before, EscIdentity $now): SettingSet
    {
        return $before->among(EscTable::defaults($now));
    }
}

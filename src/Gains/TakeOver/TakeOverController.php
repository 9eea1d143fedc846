<?php

declare(strict_types=1);

namespace Ortholex\App\Gains\TakeOver;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\TakeOver;
use Ortholex\Core\Settings\TakeOverPart;
use Ortholex\Core\Tuning\AxisPlant;
use Ortholex\Core\Tuning\Comparable;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Parts of another craft's settings, of a snapshot or of a file: what would change here, and what makes it not the same. */
#[AsController]
final class TakeOverController extends SheetController
{
    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Snapshots $snapshots,
        private readonly SettingsFile $files,
        private readonly JudgedLog $judged,
        private readonly AnalysisStore $analyses,
        private readonly CurrentNames $names,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/take-over', name: 'take_over', methods: ['GET', 'POST'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $parts = [];
        foreach ($request->isMethod('POST') ? $request->request->all('parts') : $request->query->all('parts') as $part) {
            $parts[] = \is_string($part) ? TakeOverPart::tryFrom($part) : null;
        }
        $parts = array_values(array_filter($parts)) ?: [TakeOverPart::Gains, TakeOverPart::Filters];
        $from = $request->query->getString('from');
        [$name, $theirs, $plants] = $request->isMethod('POST') ? $this->fromFile($craft, $request) : $this->source($craft, $from);

        return $this->show(
            $craft,
            '61',
            'Gains/take_over.html.twig',
            new TakeOverView(
                $this->sources($craft),
                $from,
                $parts,
                $name,
                null === $theirs ? null : TakeOver::of($theirs, $craft->settings, $parts),
                null === $theirs ? [] : $this->comparable($craft, $theirs, $plants)->differences,
                null === $theirs ? [] : $this->comparable($craft, $theirs, $plants)->scaled,
                $craft->settings,
                $this->catalogue->of($craft->version()),
            ),
        );
    }

    /** @return array<string, string> what can be taken from, by what the address calls it */
    private function sources(Craft $craft): array
    {
        $sources = [];
        foreach ($this->crafts->all() as $other) {
            if ($other->slug !== $craft->slug && $other->isKnown()) {
                $sources["craft-$other->slug"] = "$other->name, as last read";
            }
            foreach ($this->snapshots->of($other) as $snapshot) {
                $sources["snapshot-$snapshot->id"] = "$other->name: snapshot “{$snapshot->name}”";
            }
        }

        return $sources;
    }

    /** @return array{string, SettingSet|null, array<string, AxisPlant>} name, settings as this craft's firmware names them, axes */
    private function source(Craft $craft, string $from): array
    {
        if ('' === $from) {
            return ['', null, []];
        }
        if (!isset($this->sources($craft)[$from])) {
            throw new NotFoundHttpException('There is nothing of that name to take over from.');
        }
        $name = $this->sources($craft)[$from];
        [$kind, $id] = explode('-', $from, 2);
        if ('craft' === $kind) {
            $other = $this->crafts->named($id);
            $log = $this->judged->best($other);

            return [$name, $this->carried($craft, $other->settings, $other->version()), null === $log ? [] : $this->plants($log)];
        }
        foreach ($this->crafts->all() as $other) {
            foreach ($this->snapshots->of($other) as $snapshot) {
                if ((string) $snapshot->id === $id) {
                    return [$name, $this->carried($craft, $snapshot->settings, Version::parse($snapshot->version)), []];
                }
            }
        }

        return ['', null, []];
    }

    /** @return array{string, SettingSet|null, array<string, AxisPlant>} */
    private function fromFile(Craft $craft, Request $request): array
    {
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile || !$file->isValid()) {
            throw BadRequest::at('file', 'No file came. Choose a file of settings as YAML, as sheet 71 writes them.');
        }
        try {
            $set = $this->files->read($file->getPathname(), $file->getClientOriginalName());
        } catch (SettingsFileError $e) {
            throw BadRequest::at('file', 'Nothing was taken. '.strtok($e->getMessage(), "\n"));
        }

        return [$file->getClientOriginalName(), $this->carried($craft, $set, Version::parse(Catalogue::CURRENT)), []];
    }

    private function carried(Craft $craft, SettingSet $set, Version $from): SettingSet
    {
        // What it does not name is not taken at its default.
        return Migration::carried($this->catalogue, $set, $from, $craft->version());
    }

    /** @param array<string, AxisPlant> $plants */
    private function comparable(Craft $craft, SettingSet $theirs, array $plants): Comparison
    {
        $log = $this->judged->best($craft);
        $told = Comparable::of($theirs, $this->names->of($craft, $craft->settings), $plants, null === $log ? [] : $this->plants($log));

        return new Comparison($this->words->all($told->differences), $told->scaled);
    }

    /** @return array<string, AxisPlant> */
    private function plants(Log $log): array
    {
        return $this->analyses->charts($log)->plants;
    }
}

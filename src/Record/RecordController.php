<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\File\YamlText;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SentText;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\FormerNames;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Yaml\Yaml;

/** Sheets 71 to 73: all settings, snapshots, changes; and the ways back, which stage like anything else. */
#[AsController]
final class RecordController extends SheetController
{
    private const MOST_PROBLEMS = 8;
    private const MOST_BYTES = 200_000;

    /** Of the change record, the newest. */
    private const ENTRIES = 200;

    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly WaysBack $ways,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/71', name: 'settings', methods: ['GET'])]
    public function settings(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        // Those of the board by the table, then those of each ESC.
        $table = $this->catalogue->of($craft->version());
        foreach (EscTable::only($craft->settings)->names() as $name) {
            $table[$name] = $this->catalogue->get($name, $craft->version());
        }

        return $this->show(
            $craft,
            '71',
            'Record/settings.html.twig',
            SettingsView::of(
                $craft->settings,
                $this->catalogue->defaults($craft->version()),
                $this->staging->of($craft),
                $table,
                Input::query($request),
                $this->words,
            ),
        );
    }

    #[Route('/craft/{slug}/settings.yaml', name: 'settings_yaml', methods: ['GET'])]
    public function yaml(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        return new Response(YamlText::ofCraft($craft), 200, [
            'Content-Type' => 'application/yaml; charset=utf-8',
            'Content-Disposition' => "attachment; filename=\"{$craft->slug}.yaml\"",
        ]);
    }

    /** Reads settings from YAML: every line is checked before any is staged. */
    #[Route('/craft/{slug}/settings.yaml', name: 'settings_yaml_in', methods: ['POST'])]
    public function fromYaml(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $text = YamlText::read(SentText::of($request, 'file', 'yaml', self::MOST_BYTES, 'list of settings'));
        if ([] === $text->values && [] === $text->problems) {
            throw BadRequest::at('yaml', 'There is nothing to read: each line should be a setting, a colon and a value.');
        }
        [$values, $problems] = $this->checked($text, $text->release ?? $craft->version());
        if ([] !== $problems) {
            $more = \count($problems) > self::MOST_PROBLEMS ? ' And '.(\count($problems) - self::MOST_PROBLEMS).' more.' : '';
            throw BadRequest::at('yaml', 'Nothing was staged. '.implode(' ', \array_slice($problems, 0, self::MOST_PROBLEMS)).$more);
        }
        $said = \count($values).(1 === \count($values) ? ' setting was read' : ' settings were read');
        if (null !== $text->release && 0 !== $text->release->compare($craft->version())) {
            [$values, $fates] = $this->migrated($values, $text->release, $craft->version());
            $said .= " and carried from Loam {$text->release->toString()} to {$craft->version}: $fates";
        }
        $this->staging->stage($craft, $values->toArray());

        return Answer::said("$said; what differs is staged.");
    }

    /** @return array{SettingSet, list<string>} values as they are under the names of now, and what is wrong, line by line */
    private function checked(YamlText $text, Version $release): array
    {
        $line = [];
        foreach ($text->values as $name => $value) {
            foreach (FormerNames::carry([$name => $value]) as $now => $is) {
                $line[$now] ??= $text->lines[$name];
            }
        }
        $values = [];
        $problems = $text->problems;
        foreach (FormerNames::carry($text->values) as $name => $value) {
            try {
                $values[$name] = $this->catalogue->get($name, $release)->check($value, $release);
            } catch (SettingError $e) {
                $problems[] = 'Line '.($line[$name] ?? '?').': '.rtrim($e->getMessage(), '.').'.';
            }
        }
        usort($problems, static fn (string $a, string $b): int => strnatcmp($a, $b));

        return [SettingSet::of($values), $problems];
    }

    /** @return array{SettingSet, string} values under the release of now, and what became of them in words */
    private function migrated(SettingSet $values, Version $from, Version $to): array
    {
        $carried = [];
        $counts = [];
        $lost = [];
        foreach (Migration::between($this->catalogue, EscTable::without($values), $from, $to)->fates as $fate) {
            if (null === $fate->oldName) {
                continue;
            }
            $counts[$fate->kind->value] = 1 + ($counts[$fate->kind->value] ?? 0);
            if (null !== $fate->newName && null !== $fate->newValue) {
                $carried[$fate->newName] = $fate->newValue;
            } else {
                $lost[] = $fate->oldName;
            }
        }
        $words = implode(', ', array_map(static fn (string $kind, int $n): string => "$n $kind", array_keys($counts), $counts));

        return [EscTable::only($values)->with($carried), $words.([] === $lost ? '' : ' ('.implode(', ', $lost).')')];
    }

    #[Route('/craft/{slug}/73', name: 'changes', methods: ['GET'])]
    public function changes(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        $entries = $this->newest($craft);

        return $this->show(
            $craft,
            '73',
            'Record/changes.html.twig',
            new ChangesView($entries, $this->catalogue->all(), $this->ways->ofChanges($craft, $entries)),
        );
    }

    /** @return list<ChangeEntry> */
    private function newest(Craft $craft): array
    {
        return $this->entities->getRepository(ChangeEntry::class)->findBy(['craft' => $craft], ['id' => 'DESC'], self::ENTRIES);
    }

    /** The way back: stages what an entry changed, to the values of before; over later changes only where these were shown. */
    #[Route('/craft/{slug}/changes/{id<\d+>}/back', name: 'change_back', methods: ['POST'])]
    public function back(string $slug, int $id, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $way = $this->ways->ofChanges($craft, $this->newest($craft))[$id] ?? throw new NotFoundHttpException('There is no such change.');
        if ($way->changesNothing()) {
            throw BadRequest::at(
                'change',
                'Nothing would change: the craft holds all of it as it was before, or no longer has these settings.',
            );
        }
        if ($way->seen() !== Input::of($request)->text('over', 2000)) {
            throw new ConflictHttpException(
                'Later changes have touched the same settings: r'.implode(', r', $way->over).'. The way back would override them; '.
                    'look at them on sheet 73, and press again.',
            );
        }
        $this->staging->stage($craft, $way->values->toArray());

        return Answer::said('The way back is staged.'.([] === $way->moved ? '' : ' '.ucfirst(implode('; ', $way->moved)).'.'));
    }
}

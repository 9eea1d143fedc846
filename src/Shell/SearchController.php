<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\SettingSheets;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Crafts;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** What the search box finds in a craft's book: sheets, settings, actions, logs, other craft. */
#[AsController]
final readonly class SearchController
{
    public function __construct(
        private Crafts $crafts,
        private Catalogue $catalogue,
        private EntityManagerInterface $entities,
        private Words $words,
    ) {
    }

    #[Route('/craft/{slug}/search.json', name: 'search', methods: ['GET'])]
    public function index(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $found = [];
        foreach (Sheets::all() as $sheet) {
            $found[] = [
                'kind' => 'sheet',
                'name' => "$sheet->number $sheet->name",
                'about' => $sheet->will,
                'to' => "/craft/$slug/$sheet->number",
            ];
        }
        foreach ($this->actions($craft) as [$name, $about, $to]) {
            $found[] = ['kind' => 'action', 'name' => $name, 'about' => $about, 'to' => $to];
        }
        foreach ($this->entities->getRepository(Log::class)->findBy(['craft' => $craft], ['id' => 'DESC'], 200) as $log) {
            $found[] = ['kind' => 'log', 'name' => "$log->code $log->title", 'about' => $log->note, 'to' => "/craft/$slug/52?log=$log->id"];
        }
        foreach ($this->catalogue->of($craft->version()) as $setting) {
            $sheet = SettingSheets::of($setting->name);
            $found[] = [
                'kind' => 'setting',
                'name' => $setting->name,
                'about' => $this->words->label($setting),
                'to' => "/craft/$slug/$sheet?setting=$setting->name",
            ];
        }
        foreach ($this->crafts->all() as $other) {
            if ($other !== $craft) {
                $found[] = ['kind' => 'craft', 'name' => $other->name, 'about' => $other->kind, 'to' => "/craft/$other->slug/11"];
            }
        }

        return new JsonResponse($found);
    }

    /** @return list<array{string, string, string}> */
    private function actions(Craft $craft): array
    {
        $at = "/craft/$craft->slug";

        return [
            ['Link the board', 'read who it is and all its settings', "$at/11"],
            ['Write firmware', 'choose an image that fits', "$at/12"],
            ['Fly a card', 'Mixed sticks, Hover and climb, Flip set, Cruise', "$at/51"],
            ['Bring in a log', 'a CSV from disk', "$at/51"],
            ['Take a snapshot', 'a full, named copy of the settings', "$at/72"],
            ['Settings as YAML', 'read or write all of them', "$at/71"],
        ];
    }
}

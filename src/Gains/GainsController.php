<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\RoadMap\RoadMaps;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingGroup;
use Ortholex\Core\Switches\Action;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class GainsController extends SheetController
{
    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly LogBook $book,
        private readonly JudgedLog $judged,
        private readonly Predictions $predictions,
        private readonly Loops $loops,
        private readonly RoadMaps $roads,
        private readonly Chains $chains,
        private readonly CurrentNames $names,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/61', name: 'gains', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $setB = self::isSetB($request) && $craft->settings->has(GainSetB::setting(Axis::Roll, 'p'));
        $rows = $others = $ranges = [];
        foreach ($this->catalogue->of($craft->version()) as $name => $setting) {
            if (SettingGroup::Gains !== $setting->group || !isset($craft->settings[$name])) {
                continue;
            }
            [$low, $high] = $setting->range($craft->version());
            $ranges[$name] = ['low' => $low, 'high' => $high];
            if (1 === preg_match('~^gain(_b)?\.(roll|pitch|yaw)\.(p|i|d|ff|added_d)(_pct)?$~', $name, $m)) {
                if ($setB === ('' !== $m[1])) {
                    $rows[$m[2]][$m[3]] = $setting;
                }
            } elseif (!$setB) {
                $others[] = $setting;
            }
        }

        $findings = null === $log ? null : GainFindings::of($this->predictions->of($craft, $log, $setB), $log->code);
        $axis = self::axis($request, $findings);

        return $this->show(
            $craft,
            '61',
            'Gains/gains.html.twig',
            new GainsView(
                $axis,
                $rows,
                $craft->settings,
                $this->staging->of($craft),
                $others,
                $ranges,
                $log,
                $this->book->of($craft),
                $findings,
                null === $log ? [] : $this->loops->of($craft, $log, $axis, $setB),
                $setB ? null : $this->road($craft),
                $this->delayMs($craft, $log),
                new ScalePlot(
                    $this->names->of($craft, $craft->settings),
                    $this->names->of($craft, $this->staging->preview($craft)),
                ),
                $setB,
                $this->setB($craft),
            ),
        );
    }

    /** Asked for, or where one of its settings is. */
    private static function isSetB(Request $request): bool
    {
        return 'b' === $request->query->getString('set') || str_starts_with($request->query->getString('setting'), 'gain_b.');
    }

    /** Null where the firmware has no other set. */
    private function setB(Craft $craft): ?SetBView
    {
        $wanted = $this->staging->preview($craft);
        $zones = Action::GainSetB->setting();

        return $craft->settings->has(GainSetB::setting(Axis::Roll, 'p'))
            ? new SetBView(GainSetB::applied($wanted), GainSetB::differs($wanted), $wanted->text($zones))
            : null;
    }

    /** The axis that is asked for, or whose setting is; else the first that overshoots. */
    private static function axis(Request $request, ?GainFindings $findings): Axis
    {
        $asked = Axis::tryFrom($request->query->getString('axis'));
        if (null === $asked && 1 === preg_match('~^gain(?:_b)?\.(\w+)\.~', $request->query->getString('setting'), $m)) {
            $asked = Axis::tryFrom($m[1]);
        }

        return $asked ?? Axis::tryFrom($findings->overshooting[0] ?? '') ?? Axis::Roll;
    }

    private function road(Craft $craft): ?RoadView
    {
        $road = $this->roads->of($craft);
        if (null === $road) {
            return null;
        }
        $wanted = $this->staging->preview($craft);
        $stage = array_filter(
            $road->stage,
            static fn (float|int|bool|string $value, string $name): bool => $craft->settings->has($name)
                && !Setting::same($value, $wanted[$name] ?? $value),
            \ARRAY_FILTER_USE_BOTH,
        );

        return new RoadView($road->at, $this->words->of($road->why), $stage, $road->card);
    }

    private function delayMs(Craft $craft, ?Log $log): float
    {
        $set = $this->names->of($craft, $this->staging->preview($craft));

        return 1e3 * $this->chains->filters($set, $this->chains->rotorHz($craft, $log))->ratePath->phaseDelay(30.0);
    }

    /** What of the loop is drawn: pushes, margins over frequency, and P against D. */
    #[Route('/craft/{slug}/gains/loop/{log<\d+>}.json', name: 'gains_loop', methods: ['GET'])]
    public function loop(string $slug, int $log, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $one = $this->book->one($craft, $log);
        $axis = Axis::tryFrom($request->query->getString('axis')) ?? Axis::Roll;
        $setB = self::isSetB($request);
        $loops = $this->loops->of($craft, $one, $axis, $setB);

        return new JsonResponse([
            'loops' => [] === $loops ? new \stdClass() : $loops,
            'map' => $request->query->getBoolean('map') ? $this->loops->map($craft, $one, $axis, $setB) : null,
        ]);
    }

    #[Route('/craft/{slug}/gains/predict/{log<\d+>}.json', name: 'gains_predict', methods: ['GET'])]
    public function predict(string $slug, int $log, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);

        return new JsonResponse($this->predictions->of($craft, $this->book->one($craft, $log), self::isSetB($request)));
    }
}

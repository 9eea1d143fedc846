<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\SettingGroup;
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
    ) {
    }

    #[Route('/craft/{slug}/61', name: 'gains', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $rows = $others = $ranges = [];
        foreach ($this->catalogue->of($craft->version()) as $name => $setting) {
            if (SettingGroup::Gains !== $setting->group || !isset($craft->settings[$name])) {
                continue;
            }
            [$low, $high] = $setting->range($craft->version());
            $ranges[$name] = ['low' => $low, 'high' => $high];
            if (1 === preg_match('~^gain\.(roll|pitch|yaw)\.(p|i|d|ff|added_d)$~', $name, $m)) {
                $rows[$m[1]][$m[2]] = $setting;
            } else {
                $others[] = $setting;
            }
        }

        return $this->show(
            $craft,
            '61',
            'Gains/gains.html.twig',
            new GainsView(
                $rows,
                $craft->settings,
                $this->staging->of($craft),
                $others,
                $ranges,
                $log,
                $this->book->of($craft),
                null === $log ? null : GainFindings::of($this->predictions->of($craft, $log), $log->code),
            ),
        );
    }

    #[Route('/craft/{slug}/gains/predict/{log<\d+>}.json', name: 'gains_predict', methods: ['GET'])]
    public function predict(string $slug, int $log): JsonResponse
    {
        $craft = $this->crafts->named($slug);

        return new JsonResponse($this->predictions->of($craft, $this->book->one($craft, $log)));
    }
}

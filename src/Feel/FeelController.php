<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Sticks\Listening;
use Ortholex\Core\Control\TestFeel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 22: the three curves are dragged by their own points; throttle and the command low-pass likewise. */
#[AsController]
final class FeelController extends SheetController
{
    /** What is typed where someone must. */
    private const FIELDS = [
        'throttle.hover_stick_pct',
        'throttle.hover_output_pct',
        'throttle.softness_pct',
        'throttle.limit_pct',
        'command_low_pass.cutoff_hz',
    ];

    public function __construct(
        private readonly Staging $staging,
        private readonly Catalogue $catalogue,
        private readonly Listening $listening,
        private readonly LowPassTrade $trade,
        private readonly FeelSources $sources,
        private readonly EntityManagerInterface $entities,
    ) {
    }

    #[Route('/craft/{slug}/22', name: 'feel', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $from = $request->query->getString('from');
        $interval = $this->listening->now($craft)?->intervalMs;

        return $this->show($craft, '22', 'Feel/feel.html.twig', new FeelView(
            $craft->settings,
            $this->staging->of($craft),
            $this->staging->preview($craft),
            $this->fields($craft),
            $this->ranges($craft),
            $this->trade->of($craft, $interval),
            $this->sources->of($craft),
            $from,
            $this->sources->feel($craft, $from),
            SettingSet::of($craft->putBack),
        ));
    }

    /** The curves of what is staged, with what a hand is dragging in its place. */
    #[Route('/craft/{slug}/feel/curves.json', name: 'feel_curves', methods: ['GET'])]
    public function curves(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $dragged = [];
        foreach (Input::query($request)->map('values') as $name => $value) {
            $dragged[$name] = $this->catalogue->get($name, $craft->version())->check($value, $craft->version());
        }
        try {
            return new JsonResponse(Curves::of($this->staging->preview($craft)->with($dragged)));
        } catch (\InvalidArgumentException $e) {
            return new JsonResponse(['error' => $e->getMessage()], Response::HTTP_UNPROCESSABLE_ENTITY);
        }
    }

    /** Stages the feel of another craft or of a snapshot, after it was shown beside. */
    #[Route('/craft/{slug}/feel/copy', name: 'feel_copy', methods: ['POST'])]
    public function copy(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $feel = $this->sources->feel($craft, Input::of($request)->text('from', 60));
        $this->staging->stage($craft, ($feel ?? throw BadRequest::at('from', 'There is no such craft or snapshot.'))->toArray());

        return Answer::said('Its feel is staged.')->to("/craft/$slug/22");
    }

    /** Stages the test feel; what stood before is remembered until it is back. */
    #[Route('/craft/{slug}/feel/test', name: 'feel_test', methods: ['POST'])]
    public function test(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $test = TestFeel::settings($craft->settings);
        // Put on twice, what stood before the first is what is to come back.
        if ([] === $craft->putBack) {
            $craft->putBack = $craft->settings->among($test)->toArray();
            $this->entities->flush();
        }
        $this->staging->stage($craft, $test->toArray());

        return Answer::said('The test feel is staged. What stood before is kept, to be put back.');
    }

    #[Route('/craft/{slug}/feel/back', name: 'feel_back', methods: ['POST'])]
    public function back(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->staging->stage($craft, SettingSet::of($craft->putBack)->among($craft->settings)->toArray());

        return Answer::said('What stood before the test feel is staged.');
    }

    /** @return list<Setting> */
    private function fields(Craft $craft): array
    {
        $fields = [];
        foreach (self::FIELDS as $name) {
            if ($craft->settings->has($name)) {
                $fields[] = $this->catalogue->get($name, $craft->version());
            }
        }

        return $fields;
    }

    /** @return array<string, array{low: float, high: float}> */
    private function ranges(Craft $craft): array
    {
        $ranges = [];
        foreach ($this->catalogue->of($craft->version()) as $name => $setting) {
            if (\in_array($name, self::FIELDS, true) || str_starts_with($name, 'feel.')) {
                [$low, $high] = $setting->range($craft->version());
                $ranges[$name] = ['low' => $low, 'high' => $high];
            }
        }

        return $ranges;
    }
}

<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Filters;

use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** Sheet 62: the noise over throttle behind the filters, and another log held against it. */
final class MapAndBesideTest extends AppCase
{
    #[Group('slow')]
    public function testMapsOfTodayAndOfWhatIsStagedAndALogBeside(): void
    {
        $one = $this->flown('hover_and_climb', 5, 15);
        $two = $this->flown('hover_and_climb', 6, 15);
        $map = "/craft/curlew/filters/map.json?log=$one->id&axis=pitch";
        $now = $this->json($map);
        self::assertIsArray($now['now'] ?? null);
        self::assertNull($now['staged'] ?? null, 'nothing is staged');
        self::assertNull($now['less'] ?? null);
        $this->post('/craft/curlew/stage', ['values' => ['rate_path.stage.1.cutoff_hz' => '90']]);
        $then = $this->json($map);
        [$was, $staged, $less] = [$then['now'] ?? null, $then['staged'] ?? null, $then['less'] ?? null];
        self::assertSame($now['now'], $was);
        self::assertIsArray($was);
        self::assertIsArray($staged);
        self::assertIsArray($less);
        self::assertSame($was['bins'], $staged['bins']);
        self::assertIsString($less['cells']);
        // A lower cutoff makes nothing louder, and much quieter.
        $cells = array_values((array) unpack('C*', (string) base64_decode($less['cells'], true)));
        self::assertNotSame([], $cells);
        self::assertLessThanOrEqual(129, max($cells));
        self::assertLessThan(100, min($cells));
        $this->page('/craft/curlew/filters/map.json?log=99&axis=sideways', 404);
        // Another log behind the filters that it was itself flown with.
        $data = $this->json("/craft/curlew/filters/response.json?log=$one->id&beside[]=$two->id");
        self::assertSame($two->code, $data['beside'] ?? null);
        self::assertMatchesRegularExpression('~"beside_db":\[[-\d.,]{500,}~', (string) json_encode($data));
        $page = $this->page("/craft/curlew/62?log=$one->id&beside[]=$two->id");
        self::assertStringContainsString("$two->code behind the filters it was flown with.", $page);
        self::assertNull($this->json("/craft/curlew/filters/response.json?log=$one->id&beside[]=$one->id")['beside'] ?? null);
    }
}

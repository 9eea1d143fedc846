<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Catalogue;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Cache\Adapter\ArrayAdapter;

/** Settings under the names of now, worked out once for each set and release. */
final class CurrentNamesTest extends TestCase
{
    public function testASetIsCarriedByTheReleaseThatItIsOf(): void
    {
        $names = new CurrentNames(Catalogue::loam(), new ArrayAdapter());
        $craft = new Craft('curlew', 'Curlew', '', '', '', []);
        $old = SettingSet::of(['motors.idle_permille' => 62, 'gain.roll.p' => 31.0]);
        $craft->version = '25.08';
        $now = $names->of($craft, $old);
        self::assertEqualsWithDelta(6.2, $now->number('motors.idle_pct'), 1e-9);
        self::assertSame(31.0, $now['gain.roll.p']);
        self::assertSame($now, $names->of($craft, $old), 'once for each set');
        $other = SettingSet::of(['motors.idle_permille' => 40]);
        self::assertEqualsWithDelta(4.0, $names->of($craft, $other)->number('motors.idle_pct'), 1e-9);
        // The same set read as that of another release is another one.
        $craft->version = '26.06';
        self::assertNotSame($now, $names->of($craft, $old));
        $craft->version = '25.08';
        self::assertSame($now['gain.roll.p'], $names->of($craft, $old)['gain.roll.p']);
    }
}

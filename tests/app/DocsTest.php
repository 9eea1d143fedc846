<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Record\SettingsDoc;
use Ortholex\Core\Settings\Catalogue;

final class DocsTest extends AppCase
{
    public function testTheSettingsPageIsTheCatalogue(): void
    {
        self::assertSame(
            (string) file_get_contents(\dirname(__DIR__, 2).'/docs/settings.md'),
            self::getContainer()->get(SettingsDoc::class)->text(Catalogue::loam()),
            'run bin/console app:settings-doc > docs/settings.md',
        );
    }

    public function testEveryPictureThatTheReadmeShowsIsThereAndTheyAreFew(): void
    {
        $root = \dirname(__DIR__, 2);
        preg_match_all('~\]\((docs/[^)]+)\)~', (string) file_get_contents("$root/README.md"), $links);
        self::assertNotSame([], $links[1]);
        foreach ($links[1] as $path) {
            self::assertFileExists("$root/$path");
        }
        self::assertLessThan(20, \count(glob("$root/docs/screenshots/*.png") ?: []));
    }
}

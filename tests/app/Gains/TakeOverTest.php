<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Gains;

use Ortholex\Tests\app\AppCase;

/** A friend's tune, taken in part: from a craft, a snapshot, a file. */
final class TakeOverTest extends AppCase
{
    public function testPartsOfASnapshotAreComparedAndStaged(): void
    {
        $this->link('curlew');
        $this->link('bittern');
        self::assertStringContainsString('Take over a part of another tune', $this->page('/craft/curlew/take-over'));
        $html = $this->page('/craft/curlew/take-over?from=craft-bittern&parts[]=gains');
        self::assertMatchesRegularExpression('~\d settings would change, taken from Bittern~', $html);
        self::assertStringContainsString('Its arms span 580 mm, here 216.', $html);
        self::assertStringNotContainsString('notch.motor.orders', $html, 'filters were not chosen');
        self::assertStringContainsString('values[gain.yaw.p]', $html);
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.p' => 60]]);
        self::assertSame(['gain.yaw.p' => 60.0], $this->staged($this->craft()));
        self::assertStringContainsString('snapshot “As found at first link”', $html);
        $this->browser->request('GET', '/craft/curlew/take-over?from=craft-heron');
        self::assertSame(404, $this->browser->getResponse()->getStatusCode());
    }

    public function testAFileIsReadOrRefusedInWords(): void
    {
        $this->link('curlew');
        $good = $this->written("gain.roll.p: 44\nmounting.roll_deg: 90\npad.1.drives: none\n");
        $html = $this->sent($good);
        self::assertStringContainsString('1 setting would change', $html);
        self::assertStringNotContainsString('mounting.roll_deg', $html);
        foreach (["gain.roll.p: 4000\n" => 'line 1', "gain.roll.p 44\n" => 'the colon', "[\n" => 'Nothing was taken'] as $text => $words) {
            self::assertStringContainsString($words, $this->sent($this->written($text)));
        }
    }

    private function sent(string $path): string
    {
        $file = new \Symfony\Component\HttpFoundation\File\UploadedFile($path, 'friend.yaml', 'text/yaml', null, true);
        $this->browser->request('POST', '/craft/curlew/take-over', ['parts' => ['gains', 'filters']], ['file' => $file]);

        return html_entity_decode((string) $this->browser->getResponse()->getContent());
    }
}

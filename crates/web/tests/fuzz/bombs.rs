//! Files and bodies made to cost much: pictures larger than they look, forms that never end, connections that say nothing.

use std::io::Write;
use std::net::TcpStream;
use std::time::{Duration, Instant};

/// A PNG whose head says how large it would be, with nothing of it there.
pub(crate) fn png_head(width: u32, height: u32) -> Vec<u8> {
    let mut header = b"IHDR".to_vec();
    header.extend(width.to_be_bytes().into_iter().chain(height.to_be_bytes()).chain([16, 6, 0, 0, 0]));
    let mut crc = !0_u32;
    for byte in &header {
        crc = (0..8).fold(crc ^ u32::from(*byte), |crc, _| if crc & 1 == 1 { crc >> 1 ^ 0xEDB8_8320 } else { crc >> 1 });
    }
    [b"\x89PNG\r\n\x1a\n\x00\x00\x00\x0d", &header[..], &(!crc).to_be_bytes(), &[0, 0, 0, 0], b"IDAT", &[0x35, 0xaf, 0x06, 0x1e]]
        .concat()
}

/// A sound picture of many pixels in few bytes.
fn large_picture() -> Vec<u8> {
    let mut png = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_luma8(6_000, 4_000).write_to(&mut png, image::ImageFormat::Png).unwrap();
    png.into_inner()
}

/// JSON that is deep, long or past all figures.
pub(crate) fn json(kind: usize) -> String {
    match kind % 5 {
        0 => "[".repeat(200_000),
        1 => format!("{{\"format\":\"wise-badger/pack\",\"version\":1,\"leaves\":[{}]}}", "{},".repeat(50_000)),
        2 => format!("{{\"format\":\"{}\",\"version\":1}}", "x".repeat(900_000)),
        3 => "{\"format\":\"wise-badger/pack\",\"version\":1e999}".to_owned(),
        _ => "\u{feff}{\"format\":null}".to_owned(),
    }
}

async fn client(address: &str) -> reqwest::Client {
    let client = reqwest::Client::builder().cookie_store(true).no_proxy().build().unwrap();
    client.post(format!("{address}/sign-in/demo")).form(&[("person", "2")]).send().await.unwrap();
    client
}

/// Sends pictures that are dear to read, several at once, so many times; gives the slowest answer.
pub(crate) async fn uploads(address: &str, times: usize) -> Duration {
    let (client, large) = (client(address).await, large_picture());
    let mut slowest = Duration::ZERO;
    for time in 0..times {
        let send = |bytes: Vec<u8>| {
            let part = reqwest::multipart::Part::bytes(bytes).file_name("picture");
            let token = format!("bomb{time:020}");
            let form = reqwest::multipart::Form::new().text("token", token).text("revision", "1").text("subject", "vehicle");
            client.post(format!("{address}/jobs/2/photographs")).multipart(form.part("photo", part)).send()
        };
        let begun = Instant::now();
        let answers = tokio::join!(
            send(large.clone()),
            send(png_head(12_000, 12_000)),
            send(large.clone()),
            send(png_head(11_000, 11_000)),
            send(large[..large.len() / 2].to_vec()),
            send(vec![0; 15 * 1024 * 1024]),
        );
        for answer in [answers.0, answers.1, answers.2, answers.3, answers.4, answers.5] {
            let status = answer.expect("an answer").status();
            assert!(!status.is_server_error(), "{status}");
        }
        slowest = slowest.max(begun.elapsed());
    }
    slowest
}

/// Connections that begin a request and say no more; they are held until dropped.
pub(crate) fn hanging(address: &str, count: usize) -> Vec<TcpStream> {
    let host = address.trim_start_matches("http://");
    let begin = |number: usize| {
        let mut stream = TcpStream::connect(host).unwrap();
        let head = match number % 3 {
            0 => format!(
                "POST /who HTTP/1.1\r\nHost: {host}\r\nContent-Type: application/x-www-form-urlencoded\r\nContent-Length: 900\r\n\r\nper"
            ),
            1 => format!("GET / HTTP/1.1\r\nHost: {host}\r\nX-Slow: "),
            _ => format!(
                "POST /jobs/1/photographs HTTP/1.1\r\nHost: {host}\r\nContent-Type: multipart/form-data; boundary=x\r\n\
                 Content-Length: 30000000\r\n\r\n--x\r\nContent-Disposition: form-data; name=\"photo\"\r\n\r\n{}",
                "y".repeat(100_000)
            ),
        };
        let _ = stream.write_all(head.as_bytes());
        stream
    };
    (0..count).map(begin).collect()
}

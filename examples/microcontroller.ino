// A sketch for a microcontroller on a serial port: two analogue inputs as lines of numbers with names, fifty times a second.
// Heuristor finds the port by itself where the system can tell whose it is; otherwise name it when you start:
//   HEURISTOR_SERIAL=/dev/ttyUSB0@115200 npm run demo

const unsigned long interval = 20;  // milliseconds
unsigned long next = 0;

void setup() {
  Serial.begin(115200);
}

void loop() {
  if ((long)(millis() - next) < 0) return;
  next += interval;
  Serial.print("a:");
  Serial.print(analogRead(A0) * 5.0 / 1023.0, 4);
  Serial.print(" b:");
  Serial.println(analogRead(A1) * 5.0 / 1023.0, 4);
}

// IEEE 1800-2017 clause 20.8.2: functions of real numbers
module t;
  initial $display("%0.3f %0.3f %0.3f %0.1f", $sqrt(2.0), $pow(2.0, 0.5), $ln(10.0), $floor(-2.5));
endmodule
//> 1.414 1.414 2.303 -3.0

// IEEE 1800-2017 clause 11.4.14.3: a stream on the left needs as many digits as it takes
module t;
  logic [7:0] a, b;
  initial {>>{a, b}} = 8'h12; //! stream-wide
endmodule

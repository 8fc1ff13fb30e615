// IEEE 1364-2005 clause 5.1.11: one digit of many, by tables 5-17 to 5-19
module t;
  initial $display("%b%b%b %b%b%b %b%b%b", &4'b1111, &4'b111x, &4'b01x1, |4'b0000, |4'b000x, |4'b1xx0, ^4'b0111, ^4'b01x1, ~^4'b0111);
endmodule
//> 1x0 0x1 1x0

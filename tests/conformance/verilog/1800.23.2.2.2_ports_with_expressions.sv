// IEEE 1800-2017 clause 23.2.2.2: parts of one signal as several ports
module split(input logic [7:0] a, output logic [3:0] hi, lo);
  assign {hi, lo} = a;
endmodule
module t;
  logic [7:0] a = 8'h5A;
  logic [7:0] y;
  split s(.a(a ^ 8'hff), .hi(y[3:0]), .lo(y[7:4]));
  initial begin
    #1 $display("%h", y);
    a = 8'hF0;
    #1 $display("%h", y);
  end
endmodule
//> 5a
//> f0

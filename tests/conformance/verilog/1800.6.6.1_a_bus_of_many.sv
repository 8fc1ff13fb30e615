// IEEE 1800-2017 clause 6.6.1: inout ports meet on one wire, and those that are quiet let go
module port #(parameter logic [3:0] ME = 0) (inout wire [3:0] b, input logic talk, output logic [3:0] heard);
  assign b = talk ? ME : 'z;
  assign heard = b;
endmodule
module t;
  wire [3:0] b; logic [2:0] talk = 0; wire [3:0] h [3];
  port #(4'h3) x(b, talk[0], h[0]); port #(4'h5) y(b, talk[1], h[1]); port #(4'h6) z(.b, .talk(talk[2]), .heard(h[2]));
  initial begin
    #1 $display("%b", h[0]);
    talk = 1; #1 $display("%h%h", h[1], h[2]);
    talk = 4; #1 $display("%h%h", h[0], h[1]);
    talk = 3; #1 $display("%b", h[2]);
  end
endmodule
//> zzzz
//> 33
//> 66
//> 0xx1

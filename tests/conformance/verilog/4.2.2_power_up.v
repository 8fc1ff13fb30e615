// IEEE 1364-2005 clause 4.2.2, 6.2.1: what everything holds before anything has happened
module t;
  reg r; reg [3:0] v; integer i; real x; time tm; wire w; wire [1:0] dr; reg ini = 1'b1; reg [3:0] iv = 4'd9; assign dr = v[1:0];
  initial begin $display("%b %b %b %g %b %b %b %b %0d", r, v, i[3:0], x, tm[1:0], w, dr, ini, iv); end
endmodule
//> x xxxx xxxx 0 xx z xx 1 9

// IEEE 1364-2005 clause 9.3: assign and deassign, force and release
module t;
  reg [3:0] r, d; reg c; wire [3:0] w = d; wire y; and (y, c, d[0]);
  initial begin
    r = 1; d = 5; c = 1; assign r = d; #1 $display("%0d", r); r = 9; #1 $display("%0d", r); d = 6; #1 $display("%0d", r); deassign r; d = 7; #1 $display("%0d", r); r = 2; #1 $display("%0d", r);
    force r = d + 1; #1 $display("%0d", r); d = 3; #1 $display("%0d", r); r = 0; #1 $display("%0d", r); release r; #1 $display("%0d", r); r = 0; #1 $display("%0d", r);
    force w = 4'b1111; #1 $display("%b %b", w, d); d = 1; #1 $display("%b", w); release w; #1 $display("%b", w);
    force y = 0; #1 $display("%b", y); c = 1; d[0] = 1; release y; #1 $display("%b", y);
    force w[1:0] = 2'b10; #1 $display("%b", w); release w; #1 $display("%b", w);
    assign r = 3; force r = 12; #1 $display("%0d", r); release r; #1 $display("%0d", r);
  end
endmodule
//> 5
//> 5
//> 6
//> 6
//> 2
//> 8
//> 4
//> 4
//> 4
//> 0
//> 1111 0011
//> 1111
//> 0001
//> 0
//> 1
//> 0010
//> 0001
//> 12
//> 3

// IEEE 1800-2017 clause 7.4.1: outer ranges count the inner vectors
module t;
  logic [3:0][7:0] m;
  logic [0:1][0:2][3:0] n;
  initial begin
    m = 32'h0102_0304;
    $display("%h %h %h", m[3], m[0], m[2:1]);
    m[1] = 8'hFF;
    m[0][7:4] = 4'hA;
    $display("%h %b", m, m[3][0]);
    n = 24'h123456;
    $display("%h %h %h", n[0], n[0][0], n[1][2]);
  end
endmodule
//> 01 04 0203
//> 0102ffa4 1
//> 123 1 6

// IEEE 1364-2005 clause 3.5: literals, their sizes, signs and unknown digits
module t;
  initial begin
    $display("%b %b %b", 4'b1, 6'o7, 8'hA);
    $display("%b %b", 4'bx, 8'bz1);
    $display("%b", 8'hx5);
    $display("%d %d", 4'd12, -4'd12);
    $display("%0d %0d", 4'sb1111, 4'b1111);
    $display("%b", 'o17 + 0);
    $display("%h", 32'hdead_beef);
    $display("%b", 3'b10101);
    $display("%0d", -'d5 / 3 == (-5)/3);
    $display("%0d %0d", -8'sd3, -8'd3);
    $display("%b", 12'hzx0);
    $display("%b", 8'b?01);
    $display("%0d", 'h ff);
    $display("%0d", 4 'b 1001);
  end
endmodule
//> 0001 000111 00001010
//> xxxx zzzzzzz1
//> xxxx0101
//> 12  4
//> -1 15
//> 00000000000000000000000000001111
//> deadbeef
//> 101
//> 1
//> -3 253
//> zzzzxxxx0000
//> zzzzzz01
//> 255
//> 9
